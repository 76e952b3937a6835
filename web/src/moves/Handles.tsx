import { ParamControl } from '../controls/ParamControl'
import { rowOfOwner } from '../session/outline'
import { useSession } from '../session/store'

/** The handles that move something of a row, as scales. */
export function Handles({ row }: { row: string }) {
  const handles = useSession((s) => s.project?.handles)
  const strip = useSession((s) => s.strip)
  const here = (handles ?? []).filter((h) => h.targets.some((t) => rowOfOwner(t.owner) === row))
  if (!strip || here.length === 0) return null
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-1" role="group" aria-label="Handles">
      {here.map((h) => (
        <span key={h.id} className="w-[150px]">
          <ParamControl
            owner={h.id}
            param={strip.handle}
            value={h.value}
            of={h.name}
            label={h.name}
            compact
          />
        </span>
      ))}
    </div>
  )
}
