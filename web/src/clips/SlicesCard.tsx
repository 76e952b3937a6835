import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import type { Param } from '../api/types'
import { Card } from '../controls/Card'
import { Pick } from '../controls/Pick'
import { Scale } from '../controls/Scale'
import { change } from '../session/changes'
import { theProject } from '../session/store'
import { setView, useView } from '../session/view'
import { marksOf } from './levels'

type By = 'onsets' | 'grid' | 'sections'

const ways: { value: By; text: string }[] = [
  { value: 'onsets', text: 'where sounds begin' },
  { value: 'grid', text: 'at the grid' },
  { value: 'sections', text: 'where sections begin' },
]

const grids = [
  { value: 3840, text: '1/1' },
  { value: 1920, text: '1/2' },
  { value: 960, text: '1/4' },
  { value: 480, text: '1/8' },
  { value: 240, text: '1/16' },
]

const many: Param = {
  name: 'many',
  label: 'How many',
  unit: '%',
  says: 'How soft a beginning may be and still be cut at.',
  min: 0,
  max: 100,
  default: 85,
  taper: 'linear',
  step: 1,
  digits: 0,
}

/** Slices: the places at which clips would be cut are seen on them first, and can be dragged. */
export function SlicesCard({ ids }: { ids: string[] }) {
  const [by, setBy] = useState<By>('onsets')
  const [grid, setGrid] = useState(480)
  const [share, setShare] = useState<number | null>(null)
  const marks = useView((v) => v.marks)
  const { data, error } = useQuery({
    queryKey: ['marks', ids, by, grid],
    queryFn: () => Promise.all(ids.map((id) => marksOf(id, by, grid))),
    retry: false,
  })
  const usual = data ? Math.round(100 * (1 - data[0]!.usual)) : many.default
  const at = share ?? usual
  useEffect(() => {
    if (!data) return
    const least = by === 'onsets' ? 1 - at / 100 : 0
    const strong = (i: number) => data[i]!.marks.filter((m) => m.strength >= least).map((m) => m.at)
    setView({ marks: Object.fromEntries(ids.map((id, i) => [id, strong(i)])) })
  }, [data, at, by, ids])
  useEffect(() => () => void setView({ marks: {} }), [])
  const count = Object.values(marks).reduce((n, x) => n + x.length, 0)
  return (
    <Card
      title={ids.length === 1 ? 'Slice the clip' : `Slice ${ids.length} clips`}
      width={552}
      foot="Marks on the clip can be dragged before anything is cut. The slices are selected then: O shuffles them."
    >
      <div className="grid grid-cols-2 gap-x-5 gap-y-1">
        <Pick label="Cut" says="At which places it is cut." value={by} choices={ways} onPick={setBy} />
        {by === 'onsets' && (
          <Scale param={{ ...many, default: usual }} value={at} label="How many" onMove={setShare} />
        )}
        {by === 'grid' && (
          <Pick label="Grid" says="How far apart." value={grid} choices={grids} onPick={setGrid} />
        )}
      </div>
      <p className="mt-2 flex items-center gap-3 text-label">
        <span aria-live="polite">
          {error ? error.message : !data ? 'Listening…' : count ? `${count} cuts` : 'Nothing to cut at here.'}
        </span>
        <button className="btn btn-xs btn-primary" disabled={!count} onClick={() => void cutAt(ids, marks)}>
          Cut
        </button>
      </p>
    </Card>
  )
}

/** Cuts at the marks; what comes of it is selected. */
async function cutAt(ids: string[], marks: Record<string, number[]>) {
  const before = new Set(allClips())
  const each = ids.filter((id) => marks[id]?.length)
  const done = await change(
    `Slice ${ids.length === 1 ? 'a clip' : `${ids.length} clips`}`,
    ...each.map((id) => ({
      type: 'clips.split' as const,
      do: { ids: [id], at: marks[id]!.map(Math.round), snap: {} },
    })),
  )
  if (done) setView({ clips: [...ids, ...allClips().filter((x) => !before.has(x))], dialog: null })
}

const allClips = () => (theProject()?.channels ?? []).flatMap((c) => c.clips.map((x) => x.id))
