import { useSession } from '../session/store'
import { useView } from '../session/view'
import { toggleRecord } from './recording'

/** Records on the rows that are ready; while it counts in, it counts. Nothing else in Shoal is green. */
export function RecordButton() {
  const used = useSession((s) => s.project!.channels.some((c) => c.records))
  const on = useSession((s) => s.recording !== null)
  const ending = useSession((s) => s.recording?.ending ?? false)
  const counting = useSession((s) => s.counting)
  const aside = useView((v) => v.aside)
  if (!used) return null
  return (
    <button
      className="btn btn-sm w-[78px] px-1 font-semibold"
      style={
        on
          ? { background: 'var(--live)', borderColor: 'var(--live)', color: 'var(--paper)' }
          : { background: 'transparent', borderColor: 'var(--live)', color: 'var(--live)' }
      }
      aria-pressed={on}
      disabled={ending}
      title={`Record on the rows that are ready${aside ? ', aside' : ''} ( Shift Space )`}
      onClick={() => void toggleRecord()}
    >
      {ending ? 'Landing' : counting ? `in ${counting}` : on ? 'Recording' : 'Record'}
    </button>
  )
}
