import type { KeyboardEvent } from 'react'
import { paste } from '../bench/paste'
import { place, step } from '../controls/format'
import { setView } from '../session/view'
import * as lines from './actions'
import type { Line } from './drag'

/** What keys do to a line that has the focus, and to what is selected of it. */
export const lineKey = (l: Line) => (e: KeyboardEvent) => {
  const { v, row, mine } = l
  const ticks = mine()?.ticks ?? []
  const first = v.points.find((pt) => pt.tick === ticks[0])
  const done = () => {
    e.preventDefault()
    e.stopPropagation()
  }
  if ((e.ctrlKey || e.metaKey) && e.key === 'a') {
    done()
    void lines.selectAll(v, row)
  } else if ((e.ctrlKey || e.metaKey) && e.key === 'c') {
    done()
    lines.copyPoints(v, ticks)
  } else if ((e.ctrlKey || e.metaKey) && e.key === 'v') {
    done()
    void paste({ line: v })
  } else if (e.key === 'Escape' && mine()) {
    done()
    setView({ stretch: null })
  } else if (e.key === 'Enter' && mine()) {
    done()
    lines.typeValue(v, mine()!, !mine()!.drawn)
  } else if (/^[-\d]$/.test(e.key) && mine() && !e.ctrlKey && !e.metaKey && !e.altKey) {
    done() // a value that is typed needs no Enter before it
    lines.typeValue(v, mine()!, !mine()!.drawn, e.key)
  } else if (!ticks.length || e.ctrlKey || e.metaKey) return
  else if (e.key === 'Delete' || e.key === 'Backspace') {
    done()
    void lines.cutPoints(v, ticks).then(() => setView({ stretch: null }))
  } else if ((e.key === 'ArrowUp' || e.key === 'ArrowDown') && first) {
    done()
    const next = step(v.param, first.value, (e.key === 'ArrowUp' ? 1 : -1) * (e.shiftKey ? 0.1 : 1))
    void lines.movePoints(v, ticks, 0, place(v.param, next) - first.place)
  }
}
