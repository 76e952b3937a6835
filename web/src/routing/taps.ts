import type { Send, Tap, TapPoint } from '../api/types'
import { outline, useOutline } from '../session/outline'
import { theProject } from '../session/store'

/* Points where a signal can be taken, in words: Go lists those of each row, and refuses in words what may not be. */

const none: TapPoint[] = []

export const usePoints = (row: string): TapPoint[] => useOutline((o) => o?.taps[row]) ?? none

/** A point by one word, as a list to choose from needs it. */
export const valueOf = (x: { point: string; node?: string }) => (x.node ? `${x.point} ${x.node}` : x.point)

export const tapAt = (channel: string, x: TapPoint): Tap => ({ channel, point: x.point, node: x.node })

/** Where a send is taken, as one of the points of its row. */
export const sendPoint = (s: Send, points: TapPoint[]) =>
  points.find((x) => (s.after ? x.after === s.after : !x.after && x.pre === s.pre))

/** What a tap takes, in a few words. */
export function tapText(t: Tap): string {
  const name = theProject()?.channels.find((c) => c.id === t.channel)?.name ?? '?'
  const point = outline()?.taps[t.channel]?.find((x) => valueOf(x) === valueOf(t))
  return `${name}, ${point?.text ?? t.point}`
}
