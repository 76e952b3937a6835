import { useQuery } from '@tanstack/react-query'
import type { LineView } from '../api/types'
import { serialOf } from '../document/patch'
import type { Lens } from '../document/time'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'
import { usePiece } from './piece'

/** A line as Go sees it between the edges of the board: asked anew when it has changed, or anything that is
    no line. */
export function useLine(
  owner: string,
  name: string,
  row: string,
  lens: Lens,
  width: number,
): LineView | null {
  const clip = usePiece(owner, row)
  const shape = useSession((s) => s.shape)
  const line = useSession((s) => s.project?.lines.find((l) => l.owner === owner && l.name === name))
  const ready = useSession((s) => s.timeline !== null)
  const from = Math.round(lens.frame(0))
  const to = Math.round(lens.frame(width))
  const { data } = useQuery({
    queryKey: ['line', owner, name, clip, from, to, width, shape, serialOf(line)],
    queryFn: () => theEngine()!.ask('line', { owner, name, from, to, steps: Math.ceil(width / 2), clip }),
    enabled: ready,
    staleTime: Infinity,
    gcTime: 5000,
    retry: false,
    placeholderData: (before) => before,
  })
  return data ?? null
}
