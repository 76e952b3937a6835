import { cleanup, configure } from '@testing-library/react'
import { afterEach } from 'vitest'

// What one test has drawn must not go on living in the next: they share a page.
afterEach(cleanup)

// How fast a machine is must fail no test.
configure({ asyncUtilTimeout: 60_000 })
