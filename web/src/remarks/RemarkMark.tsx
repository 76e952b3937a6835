import { useSession } from '../session/store'
import { setView } from '../session/view'
import { Flag } from './Flag'
import { useRemarks } from './useRemarks'

/** That something was said about a row, or what is on it, and is not settled. */
export function RemarkMark({ row }: { row: string }) {
  const open = useOpen()
  const here = open.filter((v) => v.row === row)
  if (here.length === 0) return null
  const waits = here.some((v) => v.waits)
  const says = `${here.length} ${here.length === 1 ? 'remark' : 'remarks'}${waits ? ', for you too' : ''}`
  return (
    <button
      type="button"
      className="grid h-[24px] w-[20px] shrink-0 place-items-center"
      aria-label={says}
      title={says}
      onClick={(e) => {
        e.stopPropagation()
        setView({ dialog: { kind: 'remarks', row } })
      }}
    >
      <Flag waits={waits} />
    </button>
  )
}

/** The remarks that are not settled. */
export function useOpen() {
  const views = useRemarks()
  const remarks = useSession((s) => s.project?.remarks)
  const settled = new Set(remarks?.filter((r) => r.settled).map((r) => r.id))
  return views.filter((v) => !settled.has(v.id))
}
