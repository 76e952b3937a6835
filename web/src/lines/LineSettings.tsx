import { setView, useViewOf } from '../session/view'

/** Ticks of a quarter note are 960: see project.TicksPerQuarter. */
const grids: [number, string][] = [
  [0, 'none'],
  [60, '1/64'],
  [120, '1/32'],
  [160, '1/16 triplet'],
  [240, '1/16'],
  [320, '1/8 triplet'],
  [480, '1/8'],
  [960, '1/4'],
  [1920, '1/2'],
  [3840, '1/1'],
]

/** How this window puts points down, and takes lines down: for it alone. */
export function LineSettings() {
  const { grid, glide, untilStop } = useViewOf('grid', 'glide', 'untilStop')
  return (
    <li
      className="flex flex-col gap-1.5 border-t px-2 py-2 text-small"
      style={{ borderColor: 'var(--hair)' }}
    >
      <label className="flex items-center justify-between gap-2 p-0">
        Grid
        <select
          className="select select-xs w-28"
          aria-label="Grid"
          value={grid}
          onChange={(e) => setView({ grid: Number(e.target.value) })}
        >
          {grids.map(([ticks, name]) => (
            <option key={ticks} value={ticks}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-center justify-between gap-2 p-0">
        Back to the line in
        <select
          className="select select-xs w-28"
          aria-label="Back to the line in"
          value={glide}
          onChange={(e) => setView({ glide: Number(e.target.value) })}
        >
          {[0, 50, 200, 500, 1000, 2000, 4000].map((ms) => (
            <option key={ms} value={ms}>
              {ms === 0 ? 'no time' : ms < 1000 ? `${ms} ms` : `${ms / 1000} s`}
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-center justify-between gap-2 p-0">
        Take down until stop
        <input
          type="checkbox"
          className="toggle toggle-xs"
          checked={untilStop}
          onChange={(e) => setView({ untilStop: e.target.checked })}
        />
      </label>
    </li>
  )
}
