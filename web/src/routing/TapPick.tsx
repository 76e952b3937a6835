import type { Tap } from '../api/types'
import { useSession } from '../session/store'
import { tapAt, usePoints, valueOf } from './taps'

/** Chooses a point of another row, or none. */
export function TapPick(p: {
  label: string
  says: string
  tap: Tap | undefined
  none: string
  without: string
  onPick: (t: Tap | null) => unknown
}) {
  const channels = useSession((s) => s.project!.channels).filter((c) => c.id !== p.without)
  const from = channels.find((c) => c.id === p.tap?.channel)
  const points = usePoints(from?.id ?? '')
  return (
    <label className="col-span-2 block h-[37px] min-w-0 text-label" title={p.says} data-says={p.says}>
      <span className="block h-4 leading-4">{p.label}</span>
      <span className="-mt-[3px] flex gap-1">
        <select
          className="select select-xs min-w-0 flex-1 pr-6"
          aria-label={p.label}
          value={p.tap?.channel ?? ''}
          onChange={(e) => p.onPick(e.target.value ? { channel: e.target.value, point: 'pre' } : null)}
        >
          <option value="">{p.none}</option>
          {channels.map((c) => (
            <option key={c.id} value={c.id}>
              {c.name}
            </option>
          ))}
        </select>
        {from && p.tap && (
          <select
            className="select select-xs min-w-0 flex-1 pr-6"
            aria-label={`${p.label}: where it is taken`}
            value={valueOf(p.tap)}
            onChange={(e) => p.onPick(tapAt(from.id, points[e.target.selectedIndex]!))}
          >
            {points.map((x) => (
              <option key={valueOf(x)} value={valueOf(x)}>
                {x.text}
              </option>
            ))}
          </select>
        )}
      </span>
    </label>
  )
}
