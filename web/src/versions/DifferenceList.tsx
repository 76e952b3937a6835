import type { RowDifference } from '../api/types'

/** What differs, row by row, in words; a row can be let go back by itself. */
export function DifferenceList({ of, back }: { of: RowDifference[]; back?: (row: string) => void }) {
  return (
    <ul>
      {of.map((d) => (
        <li
          key={d.row}
          className="flex items-baseline gap-2 border-t py-1"
          style={{ borderColor: 'var(--hair)' }}
        >
          <b className="w-[110px] shrink-0 truncate" title={d.called}>
            {d.called}
          </b>
          <span className="min-w-0 grow text-label">{d.says.join('; ')}</span>
          {back && d.row && (
            <button
              className="btn btn-xs btn-ghost shrink-0 font-normal"
              aria-label={`${d.called} back to what it was`}
              onClick={() => back(d.row)}
            >
              Back
            </button>
          )}
        </li>
      ))}
    </ul>
  )
}
