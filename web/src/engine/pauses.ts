/* How the worker pauses between two batches, and hears meanwhile what is asked of it. */

const channel = new MessageChannel()
const breathers: (() => void)[] = []
channel.port1.onmessage = () => breathers.shift()?.()

/** Lets messages in between two batches. */
export const breathe = () =>
  new Promise<void>((resolve) => {
    breathers.push(resolve)
    channel.port2.postMessage(0)
  })

type WaitAsync = (
  a: Int32Array,
  i: number,
  v: number,
  ms: number,
) => { async: boolean; value: Promise<string> | string }

/** How long a sleep is at most, in ms; where the browser cannot say that a number has changed it is looked at this often. */
const LONGEST = 20
const LOOKING = 5

/** Sleeps until a number that is shared has changed, something ends it, or 20 ms are over. */
export function sleepUntilChanged(a: Int32Array, i: number, ends: Promise<void>): Promise<unknown> {
  const wait = (Atomics as unknown as { waitAsync?: WaitAsync }).waitAsync
  if (!wait) return Promise.race([ends, new Promise((r) => setTimeout(r, LOOKING))])
  const w = wait(a, i, Atomics.load(a, i), LONGEST)
  return Promise.race([ends, w.async ? (w.value as Promise<string>) : Promise.resolve()])
}
