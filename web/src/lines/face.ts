import type { LineView } from '../api/types'
import { at, round } from '../controls/format'

export const STRIP_HEIGHT = 48
const PAD = 6

/** How much of the travel a pixel is. */
export const perPixel = 1 / (STRIP_HEIGHT - 2 * PAD)

export const within = (place: number) => Math.min(1, Math.max(0, place))

/** Where a place along the travel is drawn, and the other way round. */
export const y = (place: number) => STRIP_HEIGHT - PAD - place / perPixel
export const placeAt = (py: number) => within((STRIP_HEIGHT - PAD - py) * perPixel)

/** The value at a place, as it would be set. */
export const valueOf = (v: LineView, place: number) => round(v.param, at(v.param, place))
