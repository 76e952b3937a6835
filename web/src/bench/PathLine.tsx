import type { Channel, Path } from '../api/types'
import { ParamControl } from '../controls/ParamControl'
import { Toggle } from '../controls/Pick'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { listenToPath, setPath, toggleMute } from './forks'

type Props = { path: Path; channel: Channel; selected: boolean; part: number | undefined }

/** A path in the list of a fork: its name, level, mute and listening; what else it has when it is selected. */
export function PathLine({ path, channel, selected, part }: Props) {
  const strip = useSession((s) => s.strip)!
  const listened = useView((v) => v.listening?.paths?.includes(path.id) ?? false)
  return (
    <div className="rounded-[3px]" style={{ background: selected ? 'var(--shoal-1)' : undefined }}>
      <div className="grid grid-cols-[56px_minmax(0,1fr)_auto] items-center gap-1.5 pl-1">
        <button
          className="h-6 truncate text-left text-small"
          style={{ fontWeight: selected ? 700 : 400 }}
          aria-pressed={selected}
          title={`${path.name}${part === undefined ? '' : `: ${Math.round(part * 100)} % of the power of all paths`}`}
          onClick={() => select(channel.id, path.id)}
          onDoubleClick={() => setView({ renaming: path.id })}
        >
          <span className={path.mute ? 'struck soft' : ''}>{path.name}</span>
        </button>
        <ParamControl
          owner={path.id}
          param={strip.path}
          value={path.level}
          of={path.name}
          label={`Level of ${path.name}`}
          compact
          caption={part === undefined ? ' ' : `part ${Math.round(part * 100)} %`}
        />
        <span className="flex gap-0.5">
          <button
            className={`btn btn-xs min-h-6 px-1 font-normal ${path.mute ? 'btn-primary' : 'btn-ghost'}`}
            aria-pressed={path.mute}
            aria-label={`Mute ${path.name}`}
            title="Mute the path ( B )"
            onClick={() => void toggleMute(path)}
          >
            mute
          </button>
          <button
            className={`btn btn-xs min-h-6 px-1 font-normal ${listened ? 'btn-secondary' : 'btn-ghost'}`}
            aria-pressed={listened}
            aria-label={`Listen to ${path.name}`}
            title="Hear only this path ( V ); with Shift besides others"
            onClick={(e) => listenToPath(path.id, e.shiftKey)}
          >
            listen
          </button>
        </span>
      </div>
      {selected && (
        <div className="grid grid-cols-2 gap-x-3 gap-y-1 px-2 pb-1">
          <ParamControl
            owner={path.id}
            param={strip.pan}
            value={path.pan}
            of={path.name}
            label={`Pan of ${path.name}`}
            caption="Pan"
            compact
          />
          <ParamControl
            owner={path.id}
            param={strip.width}
            value={path.width}
            of={path.name}
            label={`Width of ${path.name}`}
            caption="Width, %"
            compact
          />
          <Toggle
            label="Polarity turned"
            says="The path joins upside down."
            on={path.invert}
            onSet={(invert) => setPath(path, { invert }, 'Turn the polarity of')}
          />
        </div>
      )}
    </div>
  )
}
