import type { Path } from '../api/types'
import { ParamControl } from '../controls/ParamControl'
import { Toggle } from '../controls/Pick'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { listenToPath, setPath, toggleMute } from './forks'

/** What a path has besides its stages: level, pan, width, polarity, mute and listening. */
export function PathScales({ path, part }: { path: Path; part: number | undefined }) {
  const strip = useSession((s) => s.strip)!
  const listened = useView((v) => v.listening?.paths?.includes(path.id) ?? false)
  return (
    <>
      <div className="mb-1 flex min-h-7 flex-wrap items-center gap-x-1.5">
        <span className="text-press font-semibold wrap-anywhere">{path.name}</span>
        <span className="soft text-small whitespace-nowrap">
          {part !== undefined && `${Math.round(part * 100)} % of the power of all`}
        </span>
        <span className="ml-auto flex gap-1">
          <button
            className={`btn btn-xs font-normal ${path.mute ? 'btn-primary' : 'btn-outline'}`}
            aria-pressed={path.mute}
            aria-label={`Mute ${path.name}`}
            title="Mute the path ( B )"
            onClick={() => void toggleMute(path)}
          >
            mute
          </button>
          <button
            className={`btn btn-xs font-normal ${listened ? 'btn-secondary' : 'btn-outline'}`}
            aria-pressed={listened}
            aria-label={`Listen to ${path.name}`}
            title="Hear only this path ( V ); with Shift besides others"
            onClick={(e) => listenToPath(path.id, e.shiftKey)}
          >
            listen
          </button>
        </span>
      </div>
      <div className="grid grid-cols-2 gap-x-4 gap-y-0.5">
        <ParamControl
          owner={path.id}
          param={strip.path}
          value={path.level}
          of={path.name}
          label={`Level of ${path.name}`}
          caption="Level"
        />
        <ParamControl
          owner={path.id}
          param={strip.pan}
          value={path.pan}
          of={path.name}
          label={`Pan of ${path.name}`}
          caption="Pan"
        />
        <ParamControl
          owner={path.id}
          param={strip.width}
          value={path.width}
          of={path.name}
          label={`Width of ${path.name}`}
          caption="Width"
        />
        <Toggle
          label="Polarity turned"
          says="The path joins upside down."
          on={path.invert}
          onSet={(invert) => setPath(path, { invert }, 'Turn the polarity of')}
        />
      </div>
    </>
  )
}
