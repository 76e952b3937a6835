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
    <span className="flex shrink-0 items-center gap-3" role="group" aria-label="Handles">
      {here.map((h) => (
        <span
          key={h.id}
          className="flex items-center gap-1.5"
          title="A handle: it moves several things at once"
        >
          <span className="water-label text-label">{h.name}</span>
          <span className="w-[120px]">
            <ParamControl
              owner={h.id}
              param={strip.handle}
              value={h.value}
              of={h.name}
              label={h.name}
              narrow
            />
          </span>
        </span>
      ))}
    </span>
  )
}
