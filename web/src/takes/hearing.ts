import { tellReady, theEngine } from '../session/sound'
import { session, setSession } from '../session/store'

/* How one hears oneself while one is recorded. */

/** From where on downwards what arrives is not heard at all, in dB (engine.hearOff). */
export const HEAR_OFF = -60

/** Not at all; straight from the input to the ears, in the browser; through the row's chain, as late as the engine works
    ahead; or straight, with what the row sends to its returns. */
export type Ways = 'off' | 'straight' | 'chain' | 'sends'

/** How one hears oneself on a row now. */
export function hears(row: string, own: boolean): Ways {
  const { ready, direct, returns } = session()
  const chain = (ready[row] ?? HEAR_OFF) > HEAR_OFF
  if (!own || !direct) return chain ? 'chain' : 'off'
  return chain && returns ? 'sends' : 'straight'
}

/** Hears oneself another way on a row. */
export function hearBy(row: string, how: Ways) {
  const chain = how === 'chain' || how === 'sends'
  setSession((s) => ({
    direct: how === 'straight' || how === 'sends',
    returns: how === 'sends',
    ready: { ...s.ready, [row]: chain ? s.hearLevel : HEAR_OFF },
  }))
  tellReady()
  tellDirect()
}

/** How loud one hears oneself, in dB, whichever way. */
export function hearLevel(db: number) {
  setSession((s) => ({
    hearLevel: db,
    ready: Object.fromEntries(Object.entries(s.ready).map(([id, is]) => [id, is > HEAR_OFF ? db : is])),
  }))
  tellReady()
  tellDirect()
}

/** Tells the output how loud what comes in goes straight out again. */
export function tellDirect() {
  const { direct, hearLevel } = session()
  theEngine()?.hearDirectly(direct ? 10 ** (hearLevel / 20) : 0)
}
