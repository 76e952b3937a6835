import { cleanup, configure } from '@testing-library/react'
import { afterEach, vi } from 'vitest'

// What one test has drawn must not go on living in the next, nor a clock that stands: they share a page.
afterEach(() => {
  cleanup()
  vi.useRealTimers()
})

// How fast a machine is must fail no test.
configure({ asyncUtilTimeout: 60_000 })
