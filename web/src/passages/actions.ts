import { answer, api } from '../api/client'
import type { Change, CourseTargetView, Passage, PassageSpan, PassageView, Point } from '../api/types'
import { newId } from '../document/ids'
import { change } from '../session/changes'
import { select } from '../session/selected'
import { theEngine } from '../session/sound'
import { notice, refused, session } from '../session/store'
import { locate, setLoop, togglePlay } from '../session/transport'
import { setView, view } from '../session/view'

/* Passages: made, moved, changed and taken away. Frames and the grid go to Go, which works out ticks. */

export const find = (id: string): Passage | undefined => session().project?.passages?.find((x) => x.id === id)

/** Opens the card that makes a passage of the range on the ruler. */
export function openMaker(rows?: string[]) {
  const v = view()
  if (v.piece)
    return setView({ dialog: { kind: 'passage', ...v.piece, name: 'the range', rows: rows ?? v.piece.rows } })
  const loop = v.loop
  if (!loop)
    return notice('Draw a range first, along the ruler or over rows with Shift: a passage is made of it.')
  const chosen = rows ?? (v.rows.length ? v.rows : v.channel ? [v.channel] : [])
  setView({ dialog: { kind: 'passage', ...loop, rows: chosen } })
}

/** Makes one of a kind; what it placed is said. */
export async function make(kind: string, from: number, to: number, rows: string[]) {
  const p = session().project
  if (!p) return
  const id = newId()
  try {
    const r = await answer(
      api.POST('/api/projects/{id}/passages', {
        params: { path: { id: p.id } },
        body: {
          id,
          kind,
          from: Math.round(from),
          to: Math.round(to),
          snap: view().grid,
          rows,
        },
      }),
    )
    if (r.label) notice(r.label)
    setView({ dialog: null, loop: null, looping: false })
    show(id, rows[0]!)
  } catch (e) {
    refused(e)
  }
}

/** Puts a passage on the bench. */
export function show(id: string, row: string | undefined) {
  const c = row ?? session().project?.channels[0]?.id
  if (c) select(c, id)
}

export const set = (
  x: Passage,
  what: { name?: string; off?: boolean; tail?: string; fade?: number; reach?: boolean },
  label: string,
) => change(`${label} ${x.name}`, { type: 'passage.set', do: { id: x.id, ...what } })

export const setRange = (x: PassageSpan, from: number, to: number, snap = view().grid) =>
  change(`Move the passage ${x.name}`, {
    type: 'passage.range',
    do: { id: x.id, from: Math.round(from), to: Math.round(to), snap },
  })

/** Moves it by ticks, or with end only its end. */
export const stepRange = (x: PassageSpan, by: number, end: boolean) =>
  change(`Move the passage ${x.name}`, {
    type: 'passage.range',
    do: { id: x.id, fromBy: end ? 0 : by, toBy: by },
  })

/** Puts it to places that are written as bar.beat. */
export const setPlaces = (x: Passage, places: { fromAt?: string; toAt?: string }) =>
  change(`Move the passage ${x.name}`, { type: 'passage.range', do: { id: x.id, ...places } })

export async function copyTo(x: Passage, where: { section?: string; at?: number }) {
  const id = newId()
  const at = where.at === undefined ? {} : { at: Math.round(where.at), snap: view().grid }
  if (
    await change(`Copy the passage ${x.name}`, {
      type: 'passage.copy',
      do: { id: x.id, new: id, section: where.section, ...at },
    })
  )
    show(id, x.rows[0])
}

export const copyToPlayhead = (x: Passage) => copyTo(x, { at: theEngine()?.heard()?.song ?? 0 })

export async function makePlain(x: Passage) {
  const done = await change(`Turn ${x.name} into plain lines`, { type: 'passage.plain', do: { id: x.id } })
  if (done) notice(`${x.name} is plain lines now: X shows them under their rows.`)
}

export const remove = (x: Passage) =>
  change(`Remove the passage ${x.name}`, { type: 'passage.remove', do: { id: x.id } })

/** Plays it in a loop, from two bars before it to two bars after. */
export function audition(v: PassageView) {
  setLoop({ from: v.hearFrom, to: v.hearTo, name: `around ${v.passage.name}` })
  locate(v.hearFrom)
  if (!view().playing) void togglePlay()
}

type Part = { part: number; value: number; shape: Point['shape']; bend: number }

export const setCourse = (v: PassageView, course: number, points: Part[]) =>
  change(`Change ${v.courses[course]!.name} of ${v.passage.name}`, {
    type: 'course.points',
    do: {
      id: v.passage.id,
      course,
      points: points.map((p) => ({ tick: p.part, value: p.value, shape: p.shape, bend: p.bend })),
    },
  })

/** Parameters that are alike are set together: the same one on several rows. */
export const setTargets = (
  v: PassageView,
  course: number,
  list: CourseTargetView[],
  what: { from?: number; to?: number; here?: boolean },
) =>
  change(
    `Change how far ${v.passage.name} moves ${list[0]!.param.label}`,
    ...list.map((t): Change => ({
      type: 'course.target',
      do: { id: v.passage.id, course, owner: t.owner, name: t.name, ...what },
    })),
  )

export const letGo = (v: PassageView, course: number, list: CourseTargetView[]) =>
  change(
    `Let ${v.passage.name} leave ${list[0]!.param.label} alone`,
    ...list.map((t): Change => ({
      type: 'course.let-go',
      do: { id: v.passage.id, course, owner: t.owner, name: t.name },
    })),
  )

export const moveAlso = (x: Passage, owner: string, name: string, label: string) =>
  change(`Let ${x.name} move ${label}`, { type: 'course.move', do: { id: x.id, owner, name } })
