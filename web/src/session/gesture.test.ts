import { expect, test } from 'vitest'
import { gesture } from './gesture'

const event = (type: string, more: object = {}) => dispatchEvent(Object.assign(new Event(type), more))
const soon = () => new Promise((r) => setTimeout(r))

test('a press is one gesture until it is let go, a key another; changes of one moment belong together', async () => {
  const [a, b] = [gesture(), gesture()]
  expect(a).toBe(b)
  await soon()
  expect(gesture()).not.toBe(a)
  event('pointerdown')
  const press = gesture()
  await soon()
  expect(gesture()).toBe(press)
  event('keydown', { key: 'Shift' })
  expect(gesture()).toBe(press)
  event('pointerup')
  expect(gesture()).toBe(press) // a click comes behind it
  await soon()
  const after = gesture()
  expect(after).not.toBe(press)
})

test('a press that is let go outside the window has ended', async () => {
  for (const end of [() => event('pointermove', { buttons: 0 }), () => event('keydown', { key: 'b' })]) {
    event('pointerdown')
    const press = gesture()
    event('pointermove', { buttons: 1 })
    await soon()
    expect(gesture()).toBe(press)
    end()
    await soon()
    expect(gesture()).not.toBe(press)
  }
})
