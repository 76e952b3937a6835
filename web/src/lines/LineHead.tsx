import type { ReactNode } from 'react'
import type { LineView } from '../api/types'
import { Menu } from '../controls/Menu'
import * as lines from '../live/lines'
import { notice } from '../live/session'
import { setView, type Stretch } from '../live/view'
import { LineSettings } from './LineSettings'

/** The head of a line: what it moves, where it stands, and what can be done with it and what is selected of it. */
export function LineHead(p: {
  v: LineView
  row: string
  stretch: Stretch | null
  taken: boolean
  children: ReactNode
}) {
  const { v, stretch } = p
  const ticks = stretch?.ticks ?? []
  const some = (run: (s: Stretch) => unknown) => () => {
    if (!stretch || stretch.to <= stretch.from) return notice('Select a stretch first: drag along the line.')
    void run(stretch)
  }
  const points = (run: () => unknown) => () => {
    if (!ticks.length) return notice('Select points first: click one, or drag along the line.')
    void run()
  }
  const value = (points: boolean) => stretch && setView({ dialog: { kind: 'value', v, stretch, points } })
  const span = [v.low, v.high] as const
  const switches = v.param.taper === 'switch' || v.param.taper === 'choice'
  return (
    <span
      className="pointer-events-none absolute top-0 left-1 flex max-w-[70%] items-center gap-1.5 rounded-[2px] px-1"
      style={{ background: 'color-mix(in srgb, var(--paper) 60%, transparent)' }}
    >
      <span className="truncate text-[11px]" title={v.param.says}>
        {lines.labelOf(v)}
      </span>
      {p.children}
      {p.taken && (
        <span className="text-[11px]" style={{ color: 'var(--live)' }}>
          taken down
        </span>
      )}
      <Menu
        label={`Menu of the line of ${lines.labelOf(v)}`}
        className="soft pointer-events-auto h-[24px] min-w-[24px] leading-none"
        items={[
          { text: 'Fold it', run: () => lines.foldLine(p.row, `${v.owner} ${v.name}`) },
          { text: 'Type the value of the points', key: '⏎', run: points(() => value(true)) },
          ...(switches
            ? []
            : (['ramp', 'smooth', 'curve', 'step'] as const).map((shape) => ({
                text: `Go on from the points by ${shape === 'smooth' ? 'a gentle S' : `a ${shape}`}`,
                run: points(() => lines.setPoints(v, ticks, { shape })),
              }))),
          { text: 'Hold a value over the stretch', run: some(() => value(false)) },
          {
            text: 'Fill with a value on the grid',
            run: some((s) => lines.fillStretch(v, s, 'value', ...span, 0)),
          },
          { text: 'Fill rising', run: some((s) => lines.fillStretch(v, s, 'rise', ...span, 0)) },
          {
            text: 'Fill by chance (again: another throw)',
            run: some((s) => lines.fillStretch(v, s, 'chance', ...span, Date.now() % 100000)),
          },
          ...['rise', 'fall', 'pulse', 'tremble', 'stair'].map((kind) => ({
            text: `Draw a ${kind}`,
            run: some((s) => lines.shapeStretch(v, s, kind, ...span)),
          })),
          { text: 'Thin out', run: some((s) => lines.turnStretch(v, s, 'thin')) },
          { text: 'Reverse', run: some((s) => lines.turnStretch(v, s, 'reverse')) },
          { text: 'Half as far', run: some((s) => lines.turnStretch(v, s, 'scale', 0.5)) },
          { text: 'Half as far again', run: some((s) => lines.turnStretch(v, s, 'scale', 1.5)) },
          {
            text: 'Select it in all open lines of the row',
            key: 'Ctrl A',
            run: () => void lines.selectAll(v, p.row),
          },
          { text: 'Copy the points', key: 'Ctrl C', run: () => lines.copyPoints(v, ticks) },
          { text: 'Put points down at the playhead', key: 'Ctrl V', run: () => void lines.pastePoints(v) },
          { text: 'Take the points off', key: 'Del', run: points(() => lines.cutPoints(v, ticks)) },
          {
            text: 'Remove the line',
            run: () =>
              void lines.removeLine(v).then((ok) => ok && lines.foldLine(p.row, `${v.owner} ${v.name}`)),
          },
        ]}
        foot={() => <LineSettings />}
      >
        ⋯
      </Menu>
    </span>
  )
}
