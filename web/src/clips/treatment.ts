import type { Channel, Clip, EffectInfo, Project } from '../api/types'
import { findFork, findNode, idOf } from '../document/chain'
import { newId } from '../document/ids'
import { change } from '../session/changes'
import { chosenTreatment } from '../session/selected'
import { notice, theProject, useSession } from '../session/store'
import { setView, view } from '../session/view'
import { chosen } from './chosen'

/* The treatment of clips: a chain of their own, before that of their row. */

/** Puts an effect at the end of the treatment of clips; of a range that is drawn only what lies inside. */
export async function treat(clips: string[], effect: EffectInfo) {
  const id = newId()
  const { piece } = view()
  const within = piece ? { from: Math.round(piece.from), to: Math.round(piece.to) } : undefined
  const done = await change(
    `Treat ${clips.length === 1 ? 'a clip' : `${clips.length} clips`} with ${effect.name}`,
    {
      type: 'clips.treat',
      do: { clips, effect: effect.id, id, within },
    },
  )
  if (!done) return false
  // those that were cut out are others than those that were selected
  const t = theProject()?.treatments?.find((x) => x.chain.nodes.some((n) => idOf(n) === id))
  const treated = (theProject()?.channels ?? []).flatMap((c) => c.clips.filter((x) => x.treatment === t?.id))
  const now = within ? treated.map((c) => c.id) : clips
  setView({ clips: now, stage: id, together: [], piece: null, dialog: null })
  return true
}

/** Plays clips backwards: a step of their treatment. */
export async function backwards(clips: Clip[]) {
  const effect = useSession.getState().effects.find((e) => e.id === 'backwards')
  if (effect)
    await treat(
      clips.map((c) => c.id),
      effect,
    )
}

/** The effects that can be added to the treatment of what is selected. */
export function openTreatment() {
  const t = chosenTreatment()
  const at = t?.chain.nodes.findIndex((n) => idOf(n) === view().stage) ?? -1
  if (t) setView({ dialog: { kind: 'effects', owner: t.id, index: at < 0 ? t.chain.nodes.length : at + 1 } })
  else setView({ dialog: { kind: 'effects', owner: '', index: 0, clips: view().clips } })
}

/** With or without the treatment. */
export function toggle() {
  const t = chosenTreatment()
  if (!t) return notice('These clips have no treatment in common.')
  return setBypass(t, !t.chain.bypass)
}

export const setBypass = (t: Channel, bypass: boolean) =>
  change(bypass ? 'Hear clips without their treatment' : 'Hear clips with their treatment', {
    type: 'chain.set',
    do: { owner: t.id, bypass },
  })

/** From a clip to the first stage of its treatment. */
export function enter() {
  const first = chosenTreatment()?.chain.nodes[0]
  if (first) setView({ stage: idOf(first), together: [] })
  else openTreatment()
}

export const own = (clips: Clip[]) =>
  change('Give clips a treatment of their own', {
    type: 'treatment.own',
    do: { clips: clips.map((c) => c.id) },
  })

export function takeOff(clips: Clip[]) {
  setView({ stage: '' })
  return change('Take the treatment off', { type: 'treatment.give', do: { clips: clips.map((c) => c.id) } })
}

/** Whose treatment is put on what is selected next. */
let kept = ''

export function keep(clip: Clip) {
  kept = clip.id
  notice(`Select clips and put the treatment of ${clip.name} on them.`)
}

export const hasKept = () =>
  kept !== '' && !!theProject()?.channels.some((c) => c.clips.some((x) => x.id === kept))

export const put = (copy: boolean) =>
  change('Put a treatment on clips', {
    type: 'treatment.give',
    do: {
      from: kept,
      clips: chosen()
        .map((c) => c.id)
        .filter((id) => id !== kept),
      copy,
    },
  })

/** Whether something that is selected stands in the treatment of clips. */
export const treats = (clips: Clip[], project: Project, id: string) =>
  !!id &&
  project.treatments?.some(
    (t) =>
      clips.some((c) => c.treatment === t.id) &&
      (findNode(project, id)?.channel.id ?? findFork(project, id)?.channel.id) === t.id,
  )
