import type { Clip } from '../api/types'
import type { Lens } from '../document/time'

/** Frames that one value of the overview stands for: audiofile.OverviewFrames. */
const FRAMES = 512

export async function overview(hash: string): Promise<Uint8Array> {
  const r = await fetch(`/api/audio/${hash}/overview`)
  if (!r.ok) throw new Error('The overview cannot be fetched.')
  return new Uint8Array(await r.arrayBuffer())
}

type Seen = { clip: Clip; start: number; lens: Lens; from: number; width: number; height: number }

/** Draws a clip as nested depth contours: peak outside, RMS inside; as loud as its gain and its swell make it. */
export function drawWave(el: HTMLCanvasElement, data: Uint8Array, seen: Seen) {
  const { clip, start, lens, from, width, height } = seen
  const dense = Math.min(devicePixelRatio || 1, 2)
  el.width = width * dense
  el.height = height * dense
  const g = el.getContext('2d')!
  g.scale(dense, dense)
  const css = getComputedStyle(document.documentElement)
  const source = (x: number) => lens.frame(from + x) - start + clip.offset
  const louder = Array.from({ length: width }, (_, x) => 10 ** ((clip.gain + swellAt(clip, source(x))) / 40))
  const contour = (which: 0 | 1, scale: number, colour: string) => {
    g.fillStyle = css.getPropertyValue(colour)
    g.beginPath()
    const ys: number[] = []
    for (let x = 0; x < width; x++) {
      const a = source(x) / FRAMES
      const b = source(x + 1) / FRAMES
      let top = 0
      for (
        let k = Math.max(0, Math.floor(a));
        k < Math.max(Math.floor(a) + 1, b) && 2 * k + 1 < data.length;
        k++
      ) {
        top = Math.max(top, data[2 * k + which]!)
      }
      // square-root values: quiet sounds stay visible
      ys.push(Math.min((top / 255) * louder[x]! * scale, 1) * (height / 2 - 2))
    }
    ys.forEach((y, x) => g.lineTo(x, height / 2 - y))
    for (let x = width - 1; x >= 0; x--) g.lineTo(x, height / 2 + ys[x]!)
    g.fill()
  }
  contour(0, 1.15, '--shoal-2')
  contour(0, 0.85, '--shoal-3')
  contour(1, 0.95, '--deep')
  g.fillStyle = css.getPropertyValue('--deep')
  g.fillRect(0, height / 2 - 0.5, width, 1)
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
