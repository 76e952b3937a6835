import { useRef } from 'react'
import type { Clip, Worked } from '../api/types'
import { answer, api } from '../api/client'
import { projectId, refused, useSession } from '../session/store'

/* What Go works out for clips: whole-sound steps need all of a piece before it can be played. */

/** How what is worked out for a clip stands; nothing, where there is nothing to work out. */
export const useWorked = (clip: string): Worked | undefined =>
  useSession((s) => s.worked.find((w) => w.clips.includes(clip)))

/** Whether anything of these clips is still to be worked out. */
export const usePending = (clips: Clip[]) =>
  useSession((s) => s.worked.some((w) => w.state !== 'done' && clips.some((c) => w.clips.includes(c.id))))

/** The sound that a clip shows: its own, or what was worked out; the one before, until that is there. By how many
    frames what is shown lies further on than the clip counts. */
export function useShown(clip: Clip): { hash: string; shift: number } {
  const worked = useWorked(clip.id)
  const last = useRef({ hash: clip.audio, shift: 0 })
  if (worked?.state === 'done' && clip.extent)
    last.current = { hash: worked.key, shift: worked.lead - clip.extent.from }
  else if (!clip.extent) last.current = { hash: clip.audio, shift: 0 }
  return last.current
}

/** How it stands, in words. */
export function inWords(w: Worked): string {
  switch (w.state) {
    case 'running':
      return `working out, ${Math.round(w.progress * 100)} %`
    case 'waiting':
      return 'waits to be worked out'
    case 'failed':
      return `not worked out: ${w.error}`
    case 'cancelled':
      return 'called off: what was before is heard'
    case 'asked':
      return 'changed: what was before is heard'
  }
  return ''
}

const path = (w: Worked) => ({ params: { path: { id: projectId(), key: w.key } } })

/** Works it out now. */
export const ask = (w: Worked) => answer(api.POST('/api/projects/{id}/works/{key}', path(w))).catch(refused)

/** Calls it off. */
export const callOff = (w: Worked) =>
  answer(api.DELETE('/api/projects/{id}/works/{key}', path(w))).catch(refused)
