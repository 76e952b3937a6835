import { STRIP_HEIGHT } from '../lines/face'
import type { Tide } from '../session/view'

/* How high rows are, in pixels, and how much of that is water. */

/** A row that keeps to a line: its chain and its level. */
const LINE = 30
/** How much more air an open row has. */
const OPEN = 68
/** What a chain needs. */
const WATER = 27

export type Air = 'line' | 'open' | undefined

export type Heights = { air: number; water: number; lines: number; all: number }

/** A row's height and its parts: time above the surface, lines under that, signal in the water. */
export function heights(tide: Tide, base: number, air: Air, lines: number): Heights {
  const bare = tide === 'mid' ? base : Math.max(48, Math.round(base * 0.65))
  const strips = tide === 'high' ? 0 : lines * STRIP_HEIGHT
  if (air === 'line') {
    const water = tide === 'low' ? 0 : LINE
    return { air: LINE - water, water, lines: strips, all: LINE + strips }
  }
  const water = tide === 'low' ? 0 : tide === 'high' ? bare : Math.max(WATER, Math.round(bare * 0.54))
  const more = air === 'open' && tide !== 'high' ? OPEN : 0
  return { air: bare - water + more, water, lines: strips, all: bare + more + strips }
}
