import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { LineView } from '../api/types'
import { Card } from '../controls/Card'
import { said } from '../controls/format'
import { useSession } from '../session/store'
import { setView, type Stretch } from '../session/view'
import * as lines from './actions'

const W = 340
const H = 72

/** Thins a stretch of a line: by how much it may be away from what is left out, with the result before it is made. */
export function ThinCard({ v, stretch }: { v: LineView; stretch: Stretch }) {
  const revision = useSession((s) => s.revision)
  const [text, setText] = useState(v.param.unit === 'dB' ? '0.5' : String(rounded((v.high - v.low) / 50)))
  const by = Number(text.replace(',', '.'))
  const sound = text.trim() !== '' && by >= 0
  const { data } = useQuery({
    queryKey: ['thin', v.owner, v.name, stretch.from, stretch.to, by, revision],
    queryFn: () => lines.thinned(v, stretch, by),
    enabled: sound,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  })
  const take = () => {
    if (!sound) return
    setView({ dialog: null })
    void lines.turnStretch(v, stretch, 'thin', by)
  }
  return (
    <Card title="Thin out the stretch" width={400}>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          take()
        }}
      >
        <label className="block text-label">
          The line may be this far from the points that are left out{v.param.unit && `, in ${v.param.unit}`}
          <input
            data-first
            className={`input input-sm figure mt-2 w-full ${sound ? '' : 'input-error'}`}
            aria-label="At most so far away"
            value={text}
            onChange={(e) => setText(e.target.value)}
            onFocus={(e) => e.target.select()}
          />
        </label>
        {data && (
          <>
            <svg width={W} height={H} className="mt-3" role="img" aria-label="The stretch before and after">
              <polyline points={polyline(data.was)} fill="none" stroke="var(--shoal-3)" strokeWidth={4} />
              <polyline points={polyline(data.is)} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
            </svg>
            <p className="my-2" data-testid="thinned">
              {data.before} to {data.after} points, at most {said(v.param, data.away).replace('+', '')} away.
            </p>
          </>
        )}
        <button className="btn btn-primary btn-sm" disabled={!sound}>
          Thin it
        </button>
      </form>
    </Card>
  )
}

const rounded = (x: number) => Number(x.toPrecision(2))
const polyline = (ys: number[]) =>
  ys
    .map((y, i) => `${((i / (ys.length - 1)) * W).toFixed(1)},${(3 + (1 - y) * (H - 6)).toFixed(1)}`)
    .join(' ')
