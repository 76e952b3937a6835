import { useView } from '../session/view'
import { openRemarks } from './about'
import { Flag } from './Flag'
import { useOpen } from './useOpen'

/** How many remarks are open, and whether any of them waits for whoever looks. */
export function RemarkCount() {
  const open = useOpen()
  const shown = useView((v) => v.dialog?.kind === 'remarks')
  const mine = open.filter((v) => v.waits).length
  return (
    <button
      className="btn btn-xs btn-ghost gap-1 px-1"
      aria-label={`Remarks: ${open.length}${mine ? `, ${mine} for you` : ''}`}
      title={`What people said${mine ? `: ${mine} for you` : ''} ( Shift Z )`}
      aria-pressed={shown}
      onClick={openRemarks}
    >
      <Flag waits={mine > 0} size={12} />
      {open.length > 0 && <span className="figure text-label">{mine || open.length}</span>}
    </button>
  )
}
