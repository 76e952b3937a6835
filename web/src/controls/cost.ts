import type { Channel } from '../api/types'
import { shownChain, stages } from '../document/chain'

/** What part of the engine's time something takes, from nanoseconds a frame. */
export const share = (nanos: number, rate: number) => (nanos * rate) / 1e9

export const percent = (part: number) => `${(part * 100).toFixed(part < 0.1 ? 1 : 0)} %`

/** What the first nodes of a row's own chain took when they last ran. */
export const spentBefore = (c: Channel, last: number, spent: Record<string, number>) =>
  [...stages(c.chain.nodes.slice(0, last + 1))].reduce((sum, s) => sum + (spent[s.id] ?? 0), 0)

export const chainCost = (c: Channel, trials: Record<string, string>, costs: Record<string, number>) =>
  [...stages(shownChain(c, trials).chain.nodes)].reduce((sum, s) => sum + (costs[s.id] ?? 0), 0)
