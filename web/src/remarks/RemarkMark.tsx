import { useSession } from '../session/store'
import { setView } from '../session/view'
import { Flag } from './Flag'

/** That something was said about a row, or what is on it, and is not settled. */
export function RemarkMark({ row }: { row: string }) {
  const here = useSession((s) => s.said[row])
  if (!here) return null
  const says = `${here.open} ${here.open === 1 ? 'remark' : 'remarks'}${here.waits ? ', for you too' : ''}`
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
      <Flag waits={here.waits} />
    </button>
  )
}

/** That something was said about a stage, a send, a clip or a line: it is read by pressing the mark of its row. */
export function RemarkOn({ node }: { node: string }) {
  const here = useSession((s) => s.said[node])
  return here ? (
    <span title="Something was said about it">
      <Flag waits={here.waits} size={11} />
    </span>
  ) : null
}
