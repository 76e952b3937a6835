import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { PassageView } from '../api/types'
import { Pick } from '../controls/Pick'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'
import { setView } from '../session/view'
import { ContourPicture, useContour } from './ContourPicture'
import { CourseRow } from './CourseRow'
import { PassageHead } from './PassageHead'
import * as passages from './actions'

/** A passage as Go sees it, anew with every revision. */
function usePassage(id: string): PassageView | null {
  const revision = useSession((s) => s.revision)
  const { data } = useQuery({
    queryKey: ['passage', id, revision],
    queryFn: () => theEngine()!.ask('passage', { id: id }),
    staleTime: Infinity,
    gcTime: 5000,
    retry: false,
    placeholderData: (before) => before,
  })
  return data ?? null
}

/** A passage on the bench: what it does to the level, its courses with what they move, and its tail. */
export function PassagePanel({ id }: { id: string }) {
  const v = usePassage(id)
  const contour = useContour(v)
  const [row, setRow] = useState('')
  if (!v) return null
  const now = contour?.rows.find((r) => r.row === row) ?? contour?.rows[0] ?? null
  return (
    <div
      className="flex h-full flex-col px-3.5 pt-2.5 pb-2"
      role="group"
      aria-label={`Passage ${v.passage.name}`}
    >
      <PassageHead v={v} />
      <div className="grid min-h-0 flex-1 grid-cols-[216px_minmax(0,1fr)] gap-3">
        <div className="flex min-h-0 flex-col">
          <ContourPicture v={v} contour={contour} row={now} />
          {contour && contour.rows.length > 1 && (
            <select
              className="select select-xs mt-1 w-full"
              aria-label="Row of the contour"
              value={now?.row ?? ''}
              onChange={(e) => setRow(e.target.value)}
            >
              {contour.rows.map((r) => (
                <option key={r.row} value={r.row}>
                  {v.tails.find((t) => t.row === r.row)?.name ?? 'all rows together'}
                </option>
              ))}
            </select>
          )}
          <Tail v={v} />
        </div>
        <div className="flex min-h-0 flex-col gap-1 overflow-y-auto pr-1">
          {v.courses.map((c, i) => (
            <CourseRow key={i} v={v} course={c} index={i} />
          ))}
          {v.courses.length === 0 && <p className="soft text-small">Nothing moves in it yet.</p>}
          <button
            className="btn btn-xs btn-outline w-full shrink-0 font-normal"
            onClick={() => setView({ dialog: { kind: 'course', id } })}
          >
            Move something more…
          </button>
          {v.brought.length > 0 && (
            <p className="soft text-small leading-[14px]">
              It brought {v.brought.join(', ')}; removed, it takes them along.
            </p>
          )}
        </div>
      </div>
    </div>
  )
}

const rules = [
  { value: 'ring', text: 'rings on' },
  { value: 'cut', text: 'is cut' },
  { value: 'fade', text: 'fades' },
  { value: 'hold', text: 'is held' },
]

const says: Record<string, string> = {
  ring: 'At the end everything is as before at once; what rings, rings.',
  cut: 'From the end on the rows are silent until the next clip begins on them, or on a row that feeds them.',
  fade: 'From the end on the rows fade, until the next clip begins on them, or on a row that feeds them.',
  hold: 'What moved stays where it ended until the next clip begins on the row, or on one that feeds it.',
}

function Tail({ v }: { v: PassageView }) {
  const x = v.passage
  return (
    <div className="mt-1 flex flex-col gap-1">
      <Pick
        label="Its tail"
        says={says[x.tail]!}
        value={x.tail}
        choices={rules}
        onPick={(tail) => passages.set(x, { tail }, 'Change the tail of')}
      />
      {x.tail === 'fade' && (
        <Pick
          label="Fades over"
          says="How long the fade takes, in quarter notes."
          value={x.fade}
          choices={[240, 480, 960, 1920, 3840, 7680].map((t) => ({ value: t, text: beats(t) }))}
          onPick={(fade) => passages.set(x, { fade }, 'Change the tail of')}
        />
      )}
      {(x.tail === 'cut' || x.tail === 'fade') && (
        <label className="flex items-start gap-2 text-small">
          <input
            type="checkbox"
            className="checkbox checkbox-xs mt-0.5"
            checked={!!x.reach}
            onChange={(e) => void passages.set(x, { reach: e.target.checked }, 'Change the tail of')}
          />
          <span>
            The returns too: the sends of its rows close {x.tail === 'cut' ? 'when it begins' : 'along it'},
            so that halls have rung down by its end. What other rows send stays.
          </span>
        </label>
      )}
    </div>
  )
}

const beats = (ticks: number) => (ticks < 960 ? `1/${(4 * 960) / ticks}` : `${ticks / 960} × 1/4`)
