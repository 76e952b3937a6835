import { ofChains } from './ofChains'
import { ofRows } from './ofRows'
import { ofScales } from './ofScales'
import { ofTime } from './ofTime'
import type { Selection } from './steps'

/** A key, as the card shows it and docs/keys.md lists it, and what it does on the board, by hotkey, while one of these is
    selected; without any it does it always, unless what is selected has another use for it. Where it does nothing
    there, what has the focus does it. Those that are blind work while trials are compared blind too. Where it does
    several things, each is named for the list of what can be done, in the order of does; none is where it only steps
    from one thing to the next. */
export type Key = {
  key: string
  says: string
  on?: Selection[]
  does?: Record<string, () => unknown>
  each?: [key: string, says: string][]
  blind?: boolean
}

/** What a key does, with what it is for. */
export const inFull = (k: Key) =>
  k.on ? `On a ${k.on.join(' or ')}: ${k.says[0]!.toLowerCase()}${k.says.slice(1)}` : k.says

/** Keys that belong together. */
export type Group = { group: string; list: Key[] }

/** Every key there is. */
export const keys: Group[] = [...ofRows, ...ofChains, ...ofTime, ...ofScales]
