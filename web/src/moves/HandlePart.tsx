import type { Handle, Param } from '../api/types'
import { ParamControl } from '../controls/ParamControl'
import { useSession } from '../session/store'
import { HandleSettings } from './HandleSettings'
import { Settle } from './Settle'
import * as moves from './actions'

/** Hangs a parameter on a handle, over a range of its own, or lets it go. */
export function HandlePart(p: {
  owner: string
  param: Param
  label: string
  handle: Handle | undefined
  handles: Handle[]
}) {
  const strip = useSession((s) => s.strip)!
  const { handle: h, param } = p
  const target = h?.targets.find((t) => t.owner === p.owner && t.name === param.name)
  if (!h || !target)
    return (
      <label className="flex items-center gap-2 text-label">
        Hang it on
        <select
          className="select select-sm w-56"
          aria-label="Hang it on a handle"
          value=""
          onChange={(e) => {
            const to = e.target.value === 'new' ? '' : e.target.value
            void moves.hang(to, p.owner, param.name, p.label)
          }}
        >
          <option value="">no handle</option>
          {p.handles.map((x) => (
            <option key={x.id} value={x.id}>
              {x.name}
            </option>
          ))}
          <option value="new">a new handle</option>
        </select>
      </label>
    )
  const set = (what: Partial<typeof target>) => void moves.setTarget(h, { ...target, ...what })
  return (
    <section
      className="rounded-[3px] border p-2.5"
      style={{ borderColor: 'var(--hair)' }}
      aria-label={`Handle ${h.name}`}
    >
      <div className="mb-1 flex items-center gap-2">
        <span className="text-label font-semibold">Handle</span>
        <span className="text-label">{h.name}</span>
        <span className="soft text-small">moves {h.targets.length}</span>
        <button
          className="btn btn-xs btn-ghost ml-auto font-normal"
          onClick={() => void moves.letGo(h, p.owner, param.name)}
        >
          Let it go
        </button>
      </div>
      <div className="grid grid-cols-2 gap-x-5 gap-y-1">
        <ParamControl
          owner={h.id}
          param={strip.handle}
          value={h.value}
          of={h.name}
          compact
          caption="Where it stands, %"
        />
        <HandleSettings handle={h} />
        <Settle param={strip.moves.bend} value={target.bend * 100} onSettle={(v) => set({ bend: v / 100 })} />
        <Settle
          param={{
            ...param,
            label: `At 0 %${param.unit && `, ${param.unit}`}`,
            says: 'Where the parameter is when the handle is at its beginning.',
          }}
          value={target.from}
          onSettle={(from) => set({ from })}
        />
        <Settle
          param={{
            ...param,
            label: `At 100 %${param.unit && `, ${param.unit}`}`,
            says: 'Where the parameter is when the handle is at its end.',
          }}
          value={target.to}
          onSettle={(to) => set({ to })}
        />
      </div>
    </section>
  )
}
