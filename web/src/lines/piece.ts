import type { Clip, Project } from '../api/types'
import { rowOfOwner } from '../session/outline'
import { theProject } from '../session/store'
import { useSession } from '../session/store'
import { useView, view } from '../session/view'

/* Lines of what stands in the treatment of clips run in the time of each piece: they are seen, and drawn, in one of
   them, under the row on which that lies. */

/** The clip in which the lines of a treatment are seen: one that is selected, else the first; on a row, of those there. */
function pieceOf(p: Project | null, treatment: string, selected: string[], row?: string): Clip | undefined {
  const clips = (p?.channels ?? [])
    .filter((c) => !row || c.id === row)
    .flatMap((c) => c.clips.filter((x) => x.treatment === treatment))
  return clips.find((x) => selected.includes(x.id)) ?? clips[0]
}

/** The same for what stands in it; nothing for what stands on a row. */
export function pieceFor(owner: string, row?: string): Clip | undefined {
  const of = rowOfOwner(owner)
  return of ? pieceOf(theProject(), of, view().clips, row) : undefined
}

/** The clip of a row in which the line of an owner is seen. */
export function usePiece(owner: string, row: string): string | undefined {
  const selected = useView((v) => v.clips)
  const id = useSession((s) => {
    const of = s.timeline?.outline.rows[owner] // it is a treatment's, or a row's
    return of && of !== row ? pieceOf(s.project, of, selected, row)?.id : undefined
  })
  return id
}

/** The row under which the line of an owner is shown. */
export function rowFor(owner: string): string {
  const of = rowOfOwner(owner)
  const piece = pieceFor(owner)
  return piece ? (theProject()?.channels.find((c) => c.clips.some((x) => x.id === piece.id))?.id ?? of) : of
}
