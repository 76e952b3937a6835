import { act, render } from '@testing-library/react'
import { useRef } from 'react'
import { afterEach, expect, test, vi } from 'vitest'

let tell: (list: { target: Element; isIntersecting: boolean }[]) => void = () => undefined
const unobserve = vi.fn()

class FakeObserver {
  constructor(f: typeof tell) {
    tell = f
  }
  observe = vi.fn()
  unobserve = unobserve
}

afterEach(() => vi.unstubAllGlobals())

test('what is in sight is told so, and nothing else; where nobody can tell, all is', async () => {
  const { useSeen } = await import('./useSeen')
  function Thing({ name }: { name: string }) {
    const ref = useRef<HTMLDivElement>(null)
    return (
      <div ref={ref} id={name}>
        {useSeen(ref) ? 'seen' : 'away'}
      </div>
    )
  }
  const all = render(<Thing name="a" />)
  expect(all.getByText('seen')).toBeTruthy()
  all.unmount()
  vi.stubGlobal('IntersectionObserver', FakeObserver)
  const two = render(
    <>
      <Thing name="a" />
      <Thing name="b" />
    </>,
  )
  const [a, b] = [two.container.querySelector('#a')!, two.container.querySelector('#b')!]
  expect(a.textContent + b.textContent!).toBe('awayaway')
  act(() => tell([{ target: b, isIntersecting: true }]))
  expect([a.textContent, b.textContent]).toEqual(['away', 'seen'])
  act(() => tell([{ target: b, isIntersecting: false }]))
  expect(b.textContent).toBe('away')
  two.unmount()
  expect(unobserve).toHaveBeenCalledTimes(2)
})
