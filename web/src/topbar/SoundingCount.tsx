import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { Shape } from '../soundings/Diamond'

/** How many soundings are open. It only counts: what they say is in the list. */
export function SoundingCount() {
  const open = useSession((s) => s.soundings).filter((x) => !x.meant)
  const shown = useView((v) => v.dialog?.kind === 'soundings')
  return (
    <button
      className="btn btn-xs btn-ghost gap-1 px-1.5"
      aria-label={`Soundings: ${open.length}`}
      title="What was noticed ( Z )"
      aria-pressed={shown}
      onClick={() => setView({ dialog: shown ? null : { kind: 'soundings' } })}
    >
      <Shape weight={open[0]?.weight ?? 'note'} />
      <span className="figure text-label">{open.length}</span>
    </button>
  )
}
