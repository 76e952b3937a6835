import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import type { Clip } from '../api/types'
import { serialOf } from '../document/patch'
import { rowOfOwner } from '../session/outline'
import { projectId, type Session, useSession } from '../session/store'

/* What the live stages of a clip's treatment make of it, as it is drawn: Go runs it through them. */

/** How long after the last change it is asked for, in ms. */
const REST = 600

/** The overview of what a clip gives, and the frame that it begins at as the clip counts; nothing, where nothing of its
    treatment runs live. What was before stays until the next is there. */
export function useTreatedWave(clip: Clip, seen: boolean) {
  const key = useRested(useSession((s) => keyOf(s, clip)))
  const { data } = useQuery({
    queryKey: ['outline', key],
    queryFn: ({ signal }) => inTurn(() => outline(clip.id, clip.offset, signal), signal),
    enabled: seen && key !== '',
    staleTime: Infinity,
    retry: false,
    placeholderData: keepPreviousData,
  })
  return clip.treatment ? (data ?? null) : null
}

/** What the overview depends on; of a clip without a treatment, or with an empty one, nothing. */
function keyOf(s: Session, clip: Clip): string {
  const t = clip.treatment ? s.project?.treatments?.find((x) => x.id === clip.treatment) : undefined
  if (!t?.chain.nodes.length) return ''
  const lines = s.project!.lines.filter((l) => rowOfOwner(l.owner) === t.id).map(serialOf)
  const worked = s.worked.find((w) => w.clips.includes(clip.id))?.state === 'done'
  const { id, audio, offset, frames, rings, extent, origin } = clip
  return JSON.stringify([
    [id, audio, offset, frames, rings, extent, origin],
    serialOf(t),
    lines,
    worked,
    serialOf(s.project!.tempo),
  ])
}

async function outline(clip: string, from: number, signal: AbortSignal) {
  const r = await fetch(`/api/projects/${projectId()}/clips/${clip}/outline`, { signal })
  if (!r.ok) throw new Error('What the treatment gives cannot be drawn.')
  return r.status === 204 ? null : { data: new Uint8Array(await r.arrayBuffer()), from }
}

let last: Promise<unknown> = Promise.resolve()

/** One after the other: they take their time, and pages of sound come through the same few connections. */
function inTurn<T>(ask: () => Promise<T>, signal: AbortSignal): Promise<T> {
  const mine = last.then(() => {
    signal.throwIfAborted()
    return ask()
  })
  last = mine.catch(() => undefined)
  return mine
}

/** A text once it has rested. */
function useRested(text: string): string {
  const [rested, setRested] = useState(text)
  useEffect(() => {
    const t = setTimeout(() => setRested(text), REST)
    return () => clearTimeout(t)
  }, [text])
  return rested
}
