import { useQuery } from '@tanstack/react-query'
import type { Trace } from '../api/types'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'
import { useView } from '../session/view'

/** The trace that is asked for, from Go; null while there is none. */
export function useTrace(): Trace | null {
  const asked = useView((v) => (v.dialog?.kind === 'trace' ? v.dialog : null))
  // it is asked of in every row: a revision draws nothing anew where no trace is asked for
  const revision = useSession((s) => (asked ? s.revision : 0))
  const ready = useSession((s) => s.timeline !== null)
  const { data } = useQuery({
    queryKey: ['trace', asked?.from, asked?.to, revision],
    queryFn: () => theEngine()!.ask('trace', { from: asked!.from, to: asked!.to }),
    enabled: asked !== null && ready,
    staleTime: Infinity,
    gcTime: 10_000,
    retry: false,
    placeholderData: (before) => before,
  })
  return asked ? (data ?? null) : null
}

/** A gain that is on a way that is traced: how much it is, at what it is set on. */
export function useTraced(at: string): number | null {
  const trace = useTrace()
  const step = trace?.ways.flatMap((w) => w.steps).find((s) => s.at === at && !s.changes)
  return step ? step.gain : null
}

/** What leads from row to row on the ways of a trace, and how loud each arrives in all. */
export function legs(trace: Trace): { from: string; to: string; way: number; dead: boolean }[] {
  return trace.ways.flatMap((w, way) => {
    let at = trace.from
    let dead = false
    return w.steps.flatMap((s) => {
      dead ||= s.gain <= -120
      if (s.channel === at) return []
      const leg = { from: at, to: s.channel, way, dead }
      at = s.channel
      return [leg]
    })
  })
}
