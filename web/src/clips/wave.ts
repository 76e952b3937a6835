import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Clip } from '../api/types'

/** Frames that one value of the overview stands for: audiofile.OverviewFrames. */
const FRAMES = 512

/** The overview of a sound; of none nothing. The one before stays until the next is there. */
export const useOverview = (hash: string) =>
  useQuery({
    queryKey: ['overview', hash],
    queryFn: () => overview(hash),
    staleTime: Infinity,
    enabled: hash !== '',
    placeholderData: keepPreviousData,
  })

async function overview(hash: string): Promise<Uint8Array> {
  const r = await fetch(`/api/audio/${hash}/overview`)
  if (!r.ok) throw new Error('The overview cannot be fetched.')
  return new Uint8Array(await r.arrayBuffer())
}

type Seen = {
  clip: Clip
  first: number // the frame of the clip at the left edge
  perPixel: number
  width: number
  height: number
  /** By how many frames what is drawn lies further on than the clip counts. */
  shift: number
  /** The overview of the source, where something else was worked out of it: its outline stands behind. */
  source?: Uint8Array
}

/** Draws a clip as nested depth contours: peak outside, RMS inside; as loud as its gain and its swell make it. Where
    it was worked out of something else, the outline of that stands behind it. */
export function drawWave(el: HTMLCanvasElement, data: Uint8Array, seen: Seen) {
  const { clip, first, perPixel, width, height, source } = seen
  const { extent } = clip
  const dense = Math.min(devicePixelRatio || 1, 2)
  el.width = width * dense
  el.height = height * dense
  const g = el.getContext('2d')!
  g.scale(dense, dense)
  const css = getComputedStyle(document.documentElement)
  const at = (x: number) => first + x * perPixel + clip.offset
  const louder = Array.from({ length: width }, (_, x) => 10 ** ((clip.gain + swellAt(clip, at(x))) / 40))
  const shown = (x: number) => at(x) + seen.shift
  const room = height / 2 - 2
  const peaks = heights(data, 0, width, shown)
  const contour = (of: number[], scale: number, colour: string) => {
    const ys = of.map((y, x) => Math.min(y * louder[x]! * scale, 1) * room)
    g.fillStyle = css.getPropertyValue(colour)
    fillAround(g, ys, height / 2)
  }
  if (source) {
    const per = extent ? (extent.to - extent.from) / extent.frames : 1
    const begin = extent?.from ?? 0
    const ys = heights(source, 0, width, (x) => begin + (at(x) - begin) * per)
    g.fillStyle = css.getPropertyValue('--hair')
    fillAround(
      g,
      ys.map((y) => Math.min(y, 1) * room),
      height / 2,
    )
  }
  contour(peaks, 1.15, '--shoal-2')
  contour(peaks, 0.85, '--shoal-3')
  contour(heights(data, 1, width, shown), 0.95, '--deep')
  g.fillStyle = css.getPropertyValue('--deep')
  g.fillRect(0, height / 2 - 0.5, width, 1)
}

/** How loud an overview is at each pixel, 0 to 1: square-root values, so that quiet sounds stay visible. */
function heights(data: Uint8Array, which: 0 | 1, width: number, place: (x: number) => number): number[] {
  return Array.from({ length: width }, (_, x) => {
    const a = place(x) / FRAMES
    const b = place(x + 1) / FRAMES
    let top = 0
    for (
      let k = Math.max(0, Math.floor(a));
      k < Math.max(Math.floor(a) + 1, b) && 2 * k + 1 < data.length;
      k++
    ) {
      top = Math.max(top, data[2 * k + which]!)
    }
    return top / 255
  })
}

function fillAround(g: CanvasRenderingContext2D, ys: number[], middle: number) {
  g.beginPath()
  ys.forEach((y, x) => g.lineTo(x, middle - y))
  for (let x = ys.length - 1; x >= 0; x--) g.lineTo(x, middle + ys[x]!)
  g.fill()
}

/** The swell at a frame of the audio in dB, as it is drawn; what is heard Go works out. */
export function swellAt(clip: Clip, frame: number): number {
  const points = clip.swell ?? []
  let k = points.length - 1
  while (k >= 0 && points[k]!.at > frame) k--
  const a = points[k]
  const b = points[k + 1]
  if (!a) return b?.gain ?? 0
  if (!b || a.step) return a.gain
  return a.gain + ((b.gain - a.gain) * (frame - a.at)) / (b.at - a.at)
}
