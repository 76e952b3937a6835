import type { Clip } from '../api/types'
import { newId } from '../document/ids'
import { rowOfOwner } from '../session/outline'
import { along } from '../sections/along'
import { change } from '../session/changes'
import { useSession } from '../session/store'
import { gridStep, view } from '../session/view'

/* Clips: how far a hand has carried them goes to Go, which finds their place on the grid. */

type How = { by?: number; ticks?: number; free?: boolean; copy?: boolean }

/** Moves a clip by frames or ticks, to the grid unless free; with copy it is put down once more. */
export function move(clip: Clip, row: string, how: How) {
  const run = (taken: boolean) =>
    void change(`${how.copy ? 'Copy' : 'Move'} ${clip.name}`, {
      type: 'clip.move',
      do: {
        id: clip.id,
        by: Math.round(how.by ?? 0),
        ticks: how.ticks ?? 0,
        snap: how.free ? 0 : view().grid,
        along: taken,
        copy: how.copy ? newId() : '',
      },
    })
  // where a row has no lines there is nothing to ask
  const lines = useSession.getState().project?.lines ?? []
  if (lines.some((l) => l.points.length > 0 && rowOfOwner(l.owner) === row)) along(run)
  else run(false)
}

export const step = (clip: Clip, row: string, direction: number) =>
  move(clip, row, { ticks: direction * gridStep() })

export const remove = (clip: Clip) =>
  change(`Remove ${clip.name}`, { type: 'clip.remove', do: { id: clip.id } })
