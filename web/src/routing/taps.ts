import type { Channel, Node, Project, Send, Tap } from '../api/types'
import { forkTitle } from '../bench/forks'
import { stageName } from '../document/chain'
import { useSession } from '../session/store'

/* Points where a signal can be taken, in words. What may be taken where is Go's affair: it refuses in words. */

export type Choice = { value: string; text: string }

/** The points of a chain: behind every stage and fork, and behind every path. */
const inChain = (nodes: Node[], within: string): Choice[] =>
  nodes.flatMap((n) =>
    n.stage
      ? [{ value: n.stage.id, text: `${within}after ${stageName(n.stage, useSession.getState().effects)}` }]
      : [
          ...n.fork!.paths.flatMap((p) => [
            ...inChain(p.chain.nodes, `${within}${p.name}: `),
            { value: `path ${p.id}`, text: `${within}path ${p.name}` },
          ]),
          { value: n.fork!.id, text: `${within}after ${forkTitle(n.fork!)}` },
        ],
  )

/** The points of one row. */
export const pointsOf = (c: Channel): Choice[] => [
  { value: 'input', text: 'what comes in' },
  ...inChain(c.chain.nodes, ''),
  { value: 'pre', text: 'before the fader' },
  { value: 'post', text: 'after the fader' },
]

/** Where a send is taken, as one of the points of its row. */
export const sendPoint = (s: Send, c: Channel) =>
  pointsOf(c).find((x) => bare(x.value) === s.after)?.value ?? (s.pre ? 'pre' : 'post')

const bare = (point: string) => point.replace(/^path /, '')

export const sendAt = (point: string) =>
  point === 'pre' || point === 'post'
    ? { pre: point === 'pre', after: '' }
    : { pre: false, after: bare(point) }

export const tapAt = (channel: string, point: string): Tap =>
  ['input', 'pre', 'post'].includes(point)
    ? { channel, point: point as Tap['point'] }
    : { channel, point: point.startsWith('path ') ? 'path' : 'after', node: bare(point) }

export const tapPoint = (t: Tap) => (t.point === 'path' ? `path ${t.node}` : t.node || t.point)

/** What a tap takes, in a few words. */
export function tapText(p: Project, t: Tap): string {
  const c = p.channels.find((x) => x.id === t.channel)
  const point = c && pointsOf(c).find((x) => x.value === tapPoint(t))
  return `${c?.name ?? '?'}, ${point?.text ?? t.point}`
}
