import type { Param } from '../api/types'
import { moveTogether } from '../live/selection'
import { useSession } from '../live/session'
import { Scale } from './Scale'

type Props = { owner: string; param: Param; value: number; of: string; narrow?: boolean; label?: string }

/** A parameter by its address: what a hand moves here is heard at once and stored when it rests. */
export function ParamControl({ owner, param, value, of, narrow, label }: Props) {
  const moving = useSession((s) => s.moving[`${owner} ${param.name}`])
  const v = moving ?? value
  const set = (x: number, rest: boolean) =>
    moveTogether(owner, param.name, x, `${param.label} of ${of}`, rest)
  if (param.taper === 'switch') {
    return (
      <label
        className="flex h-7 cursor-pointer items-center justify-between gap-2 text-[12px]"
        title={param.says}
        data-says={param.says}
      >
        {param.label}
        <input
          type="checkbox"
          className="toggle toggle-xs"
          checked={v !== 0}
          onChange={(e) => set(e.target.checked ? 1 : 0, true)}
        />
      </label>
    )
  }
  // note lengths are a ruler too: they have an order, and can be typed
  if (param.taper === 'choice' && !/^\d+\/\d+$/.test(param.choices?.[0] ?? '')) {
    return (
      <label
        className="grid grid-cols-[minmax(0,1fr)_112px] items-center gap-2 text-[12px]"
        title={param.says}
        data-says={param.says}
      >
        {param.label}
        <select
          className="select select-xs w-full pr-6"
          aria-label={param.label}
          value={v}
          onChange={(e) => set(Number(e.target.value), true)}
        >
          {param.choices?.map((c, i) => (
            <option key={c} value={i}>
              {c} {param.unit}
            </option>
          ))}
        </select>
      </label>
    )
  }
  return <Scale param={param} value={v} onMove={set} narrow={narrow} label={label} />
}
