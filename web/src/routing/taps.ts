import type { Channel, Node, Project, Send, Tap } from '../api/types'
import { stageName, useSession } from '../live/session'

/* Points where a signal can be taken, in words. What may be taken where is Go's affair: it refuses in words. */

const nodeName = (n: Node) =>
  n.stage ? stageName(n.stage, useSession.getState().effects) : n.fork!.name || 'fork'

export type Choice = { value: string; text: string }

/** The points of one row. */
export const pointsOf = (c: Channel): Choice[] => [
  { value: 'input', text: 'what comes in' },
  ...c.chain.nodes.map((n) => ({ value: n.stage?.id ?? n.fork!.id, text: `after ${nodeName(n)}` })),
  { value: 'pre', text: 'before the fader' },
  { value: 'post', text: 'after the fader' },
]

/** Where a send is taken, as one of the points of its row. */
export const sendPoint = (s: Send) => s.after || (s.pre ? 'pre' : 'post')

export const sendAt = (point: string) =>
  point === 'pre' || point === 'post' ? { pre: point === 'pre', after: '' } : { pre: false, after: point }

export const tapAt = (channel: string, point: string): Tap =>
  ['input', 'pre', 'post'].includes(point)
    ? { channel, point: point as Tap['point'] }
    : { channel, point: 'after', node: point }

export const tapPoint = (t: Tap) => t.node || t.point

/** What a tap takes, in a few words. */
export function tapText(p: Project, t: Tap): string {
  const c = p.channels.find((x) => x.id === t.channel)
  const point = c && pointsOf(c).find((x) => x.value === tapPoint(t))
  return `${c?.name ?? '?'}, ${point?.text ?? t.point}`
}
