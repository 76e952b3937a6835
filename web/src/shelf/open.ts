import type { Clip } from '../api/types'
import { setView, view } from '../session/view'

/** Opens the shelf, or closes it. */
export const openShelf = () => setView({ dialog: view().dialog?.kind === 'shelf' ? null : { kind: 'shelf' } })

/** Asks under which name clips are put on the shelf. */
export const onShelf = (clips: Clip[]) =>
  setView({ dialog: { kind: 'shelf', clips: clips.map((c) => c.id) } })
