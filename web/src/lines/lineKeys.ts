import type { KeyboardEvent } from 'react'
import { paste } from '../bench/paste'
import { place, step } from '../controls/format'
import { setView, view } from '../session/view'
import * as lines from './actions'
import type { Line } from './drag'
import { selectAll, selectNext } from './select'

/** What keys do to a line that has the focus, and to what is selected of it. */
export const lineKey = (l: Line) => (e: KeyboardEvent) => {
  const run = e.ctrlKey || e.metaKey ? withControl(l, e.key) : ofLine(l, e) || ofPoints(l, e)
  if (!run) return // it is the board's
  e.preventDefault()
  e.stopPropagation()
  run()
}

type Run = (() => unknown) | undefined | false | null

function withControl({ v, row, mine }: Line, key: string): Run {
  if (key === 'a') return () => selectAll(v, row)
  if (key === 'c') return () => lines.copyPoints(v, mine()?.ticks ?? [])
  return key === 'v' && (() => paste({ line: v }))
}

function ofLine({ v, row, mine }: Line, e: KeyboardEvent): Run {
  const selected = mine()
  if (e.key === 'Escape')
    return () => (selected ? setView({ stretch: null }) : (e.currentTarget as SVGElement).blur())
  if (selected && e.key === 'Enter') return () => lines.typeValue(v, selected, !selected.drawn)
  // a value that is typed needs no Enter before it
  if (selected && /^[-\d]$/.test(e.key)) return () => lines.typeValue(v, selected, !selected.drawn, e.key)
  if (view().channel !== row) return // another row has been selected since
  if (e.key === 'i') return () => lines.putAtPlayhead(v)
  const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key] as 1 | -1 | undefined
  return by && v.points.length > 0 && !e.altKey && (() => selectNext(v, selected?.ticks ?? [], by))
}

function ofPoints({ v, mine }: Line, e: KeyboardEvent): Run {
  const ticks = mine()?.ticks ?? []
  const first = v.points.find((pt) => pt.tick === ticks[0])
  if (!first) return
  if (e.key === 'Delete' || e.key === 'Backspace')
    return () => lines.cutPoints(v, ticks).then(() => setView({ stretch: null }))
  if (e.key !== 'ArrowUp' && e.key !== 'ArrowDown') return
  const next = step(v.param, first.value, (e.key === 'ArrowUp' ? 1 : -1) * (e.shiftKey ? 0.1 : 1))
  return () => lines.movePoints(v, ticks, 0, place(v.param, next) - first.place)
}
