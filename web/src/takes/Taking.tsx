import type { Overview } from '../engine/recorder'
import type { Lens } from '../document/time'
import { useSession } from '../session/store'

/** What is being recorded on a row: its waveform grows. */
export function Taking({ row, lens, height }: { row: string; lens: Lens; height: number }) {
  const list = useSession((s) => s.recording?.overviews[row])
  const gone = useSession((s) => s.recording?.gone.includes(row) ?? false)
  if (!list) return null
  return (
    <>
      {stretches(list).map((s) => {
        const left = lens.x(s.from)
        const width = Math.max(2, (s.to - s.from) / lens.perPixel)
        return (
          <span
            key={s.from}
            role="img"
            aria-label="Being recorded"
            className="pointer-events-none absolute z-[4] overflow-hidden rounded-[2px] border-2"
            style={{ left, width, top: 1, height, background: 'var(--card)', borderColor: 'var(--live)' }}
          >
            <svg
              className="absolute inset-0 h-full w-full"
              viewBox={`0 0 ${width} 2`}
              preserveAspectRatio="none"
              aria-hidden
            >
              <path d={outline(s.list, lens, left, 0)} fill="var(--shoal-2)" />
              <path d={outline(s.list, lens, left, 1)} fill="var(--deep)" />
            </svg>
            <span
              className="absolute bottom-0 left-1.5 text-small font-bold"
              style={{ color: 'var(--live)' }}
            >
              {gone ? 'the input has gone' : 'recording'}
            </span>
          </span>
        )
      })}
    </>
  )
}

type Stretch = { from: number; to: number; list: Overview[] }

const end = (o: Overview) => o.song + (o.step * o.levels.length) / 2

/** What follows one another in the song: of a loop only the last round is seen. */
function stretches(list: Overview[]): Stretch[] {
  const out: Stretch[] = []
  for (const o of list) {
    const last = out.at(-1)
    if (last && Math.abs(o.song - last.to) < 2) {
      last.list.push(o)
      last.to = end(o)
    } else {
      while (out.length && out.at(-1)!.to > o.song && out.at(-1)!.from < end(o)) out.pop()
      out.push({ from: o.song, to: end(o), list: [o] })
    }
  }
  return out
}

/** One figure of every step, mirrored about the middle. */
function outline(list: Overview[], lens: Lens, left: number, which: 0 | 1): string {
  const top: string[] = []
  const bottom: string[] = []
  for (const o of list)
    for (let i = 0; i < o.levels.length / 2; i++) {
      const x = (lens.x(o.song + i * o.step) - left).toFixed(1)
      const v = Math.min(1, Math.sqrt(o.levels[2 * i + which]!)) * 0.95
      top.push(`${x} ${(1 - v).toFixed(3)}`)
      bottom.unshift(`${x} ${(1 + v).toFixed(3)}`)
    }
  return top.length ? `M${top.join('L')}L${bottom.join('L')}Z` : ''
}
