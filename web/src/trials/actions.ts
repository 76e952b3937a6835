import { answer, api, waiting } from '../api/client'
import type { Channel, Comparison } from '../api/types'
import { chainsOf, findNode, holds, shownChain } from '../document/chain'
import { newId } from '../document/ids'
import { change } from '../session/changes'
import { theEngine } from '../session/sound'
import { nameOf } from '../session/selected'
import { notice, refused, theProject, useSession } from '../session/store'
import { setView, useView, view } from '../session/view'
import { work } from '../session/works'

/** Alternatives of a chain: which one is heard belongs to this window, that they exist to the document. */

/** Lets an alternative be heard: the chain by its row's id, a trial by its own. */
export function hear(channel: string, owner: string) {
  const v = view()
  const trial = owner === channel ? '' : owner
  const trials = { ...v.trials, [channel]: trial }
  setView({ trials, together: [], stage: isBlind(channel) ? '' : keepStage(channel, trials) })
  tell(channel, trial)
  if (trial && v.matching && v.matches[channel]?.[trial] === undefined) void measure(channel)
}

/** A stage of an alternative that is no longer shown leaves the bench. */
function keepStage(channel: string, trials: Record<string, string>): string {
  const v = view()
  const c = useSession.getState().project?.channels.find((x) => x.id === channel)
  if (!c || v.channel !== channel || !v.stage) return v.stage
  const before = shownChain(c, v.trials).chain.nodes
  const now = shownChain(c, trials).chain.nodes
  const i = before.findIndex((n) => n.stage?.id === v.stage)
  if (i < 0) return holds(now, v.stage) ? v.stage : ''
  // the same effect in the other alternative, if it is there
  const effect = before[i]!.stage!.effect
  return now.find((n) => n.stage?.effect === effect)?.stage?.id ?? now[0]?.stage?.id ?? ''
}

function tell(channel: string, trial: string) {
  const v = view()
  theEngine()?.trial(channel, trial, v.matching ? (v.matches[channel] ?? {}) : {})
}

export function hearNext(c: Channel, by: number) {
  const all = chainsOf(c)
  const i = all.findIndex((x) => x.owner === shownChain(c, view().trials).owner)
  hear(c.id, all[(i + by + all.length) % all.length]!.owner)
}

export function setMatching(matching: boolean) {
  setView({ matching })
  const v = view()
  for (const [channel, trial] of Object.entries(v.trials)) tell(channel, trial)
}

/** Keeps a copy of what is heard beside it, and lets that be heard. Turned it is the same stages in another order:
    the named one and its neighbour exchanged, or all of them turned round. */
export async function keep(c: Channel, turn?: string) {
  const from = shownChain(c, view().trials)
  const id = newId()
  const label = turn === undefined ? `Try another chain on ${c.name}` : `Try ${c.name} in another order`
  if (await change(label, { type: 'trial.add', do: { id, channel: c.id, from: from.owner, turn } })) {
    hear(c.id, id)
  }
}

export const keepOtherOrder = (c: Channel) => keep(c, view().stage)

/** Compares the chain blind with one in which a stage stands at the other end: the first one last, any other one first. */
export async function otherEndBlind(stage: string) {
  const found = findNode(theProject(), stage)
  if (!found) return
  const c = found.channel
  const from = shownChain(c, view().trials)
  const id = newId()
  const label = `Try ${nameOf(stage)} at the other end of ${c.name}`
  if (!(await change(label, { type: 'trial.add', do: { id, channel: c.id, from: from.owner, end: stage } })))
    return
  const now = theProject()?.channels.find((x) => x.id === c.id)
  if (now) goBlind(now)
}

export async function take(c: Channel, id: string) {
  const t = c.trials.find((x) => x.id === id)
  if (
    t &&
    (await change(`Make trial ${t.letter} the chain of ${c.name}`, { type: 'trial.take', do: { id } }))
  )
    hear(c.id, c.id)
}

export async function drop(c: Channel, id: string) {
  const t = c.trials.find((x) => x.id === id)
  if (!t) return
  if (view().trials[c.id] === id) hear(c.id, c.id)
  await change(`Drop trial ${t.letter} of ${c.name}`, { type: 'trial.drop', do: { id } })
}

/** The range to measure over: the loop, the section at the playhead, or the whole song. */
export function range(): { from: number; to: number; name: string } {
  const v = view()
  const t = useSession.getState().timeline
  if (v.looping && v.loop) return v.loop
  const at = theEngine()?.heard()?.song ?? 0
  const s = t?.sections.find((x) => x.from <= at && at < x.to)
  return s ?? { from: 0, to: t?.end ?? 48000, name: 'the whole song' }
}

const measuring = new Map<string, AbortController>()

/** Measures a row's alternatives over the loop or section, and matches their loudness from then on. Another
    measurement of the row takes the place of one that is under way. */
export async function measure(channel: string): Promise<(Comparison & { over: string }) | null> {
  const p = useSession.getState().project
  if (!p) return null
  const { from, to, name } = range()
  const row = p.channels.find((x) => x.id === channel)?.name ?? ''
  const spec = { channel, from: Math.round(from), to: Math.round(to) }
  measuring.get(channel)?.abort()
  const mine = new AbortController()
  measuring.set(channel, mine)
  try {
    const c = await work(
      `Measuring each trial of ${row} over ${name}…`,
      (w) =>
        answer(
          api.POST('/api/projects/{id}/trials', {
            params: { path: { id: p.id } },
            body: spec,
            ...waiting(w),
          }),
        ),
      mine.signal,
    )
    const match = Object.fromEntries(c.alternatives.map((a) => [a.trial, a.match]))
    setView({ matches: { ...view().matches, [channel]: match } })
    tell(channel, view().trials[channel] ?? '')
    return { ...c, over: name }
  } catch (e) {
    if (!mine.signal.aborted) refused(e)
    return null
  } finally {
    if (measuring.get(channel) === mine) measuring.delete(channel)
  }
}

/** Hides which is which until one is chosen: nothing on any screen tells. The order is thrown anew each time. */
export function goBlind(c: Channel) {
  const order = chainsOf(c)
    .map((x) => ({ owner: x.owner, by: crypto.getRandomValues(new Uint32Array(1))[0]! }))
    .sort((a, b) => a.by - b.by)
    .map((x) => x.owner)
  setView({
    blind: { channel: c.id, order },
    stage: '',
    pinned: '',
    together: [],
    dialog: null,
    matching: true,
    lines: { ...view().lines, [c.id]: [] },
  })
  hear(c.id, order[0]!)
}

/** Takes a choice, or that there is none; only then it is told which is which. */
export function choose(c: Channel, owner: string | null) {
  const order = view().blind?.order ?? []
  const letter = (o: string) => chainsOf(c).find((x) => x.owner === o)?.letter ?? '?'
  const all = order.map((o, i) => `${i + 1} was ${letter(o)}`).join(', ')
  setView({ blind: null })
  if (owner) hear(c.id, owner)
  notice(owner ? `You chose ${letter(owner)}: ${all}.` : `You heard no difference: ${all}.`)
}

/** Whether a row's alternatives are compared without saying which is which. */
export const isBlind = (channel: string) => view().blind?.channel === channel
export const useBlind = (channel: string) => useView((v) => v.blind?.channel === channel)
