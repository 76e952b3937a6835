import type { Channel, Path } from '../api/types'
import { menuOnBench } from '../board/menuOnBench'
import { NameField } from '../controls/NameField'
import { ParamControl } from '../controls/ParamControl'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { listenToPath, setPath } from './forks'

/** What stands at the beginning of a strand: the path's name, its level, listening. */
export function StrandHead({ path, channel, selected }: { path: Path; channel: Channel; selected: boolean }) {
  const listened = useView((v) => v.listening?.paths?.includes(path.id) ?? false)
  const renaming = useView((v) => v.renaming === path.id)
  const strip = useSession((s) => s.strip)
  return (
    <span className="flex items-center gap-1.5 px-1">
      {renaming ? (
        <NameField
          name={path.name}
          label="Name of the path"
          onName={(name) => void setPath(path, { name }, 'Rename')}
        />
      ) : (
        <button
          className="h-6 min-w-[44px] px-1 text-left text-label font-semibold whitespace-nowrap"
          style={{ textDecoration: path.mute ? 'line-through' : undefined }}
          aria-pressed={selected}
          aria-label={`Path ${path.name}${path.mute ? ', muted' : ''}${listened ? ', listened to' : ''}`}
          title={`${path.name}. Double click names it.`}
          onClick={() => select(channel.id, path.id)}
          onContextMenu={menuOnBench(channel.id, path.id, 'path')}
          onDoubleClick={() => setView({ renaming: path.id })}
        >
          {path.name}
        </button>
      )}
      {strip && (
        <span className="w-[126px]">
          <ParamControl
            owner={path.id}
            param={strip.path}
            value={path.level}
            of={path.name}
            label={`Level on the strand ${path.name}`}
            narrow
          />
        </span>
      )}
      <button
        className="water-label h-6 px-1 text-small"
        style={{ fontWeight: listened ? 700 : 400, textDecoration: listened ? 'underline' : undefined }}
        aria-pressed={listened}
        aria-label={`Listen to the strand ${path.name}`}
        title="Hear only this path ( V ); with Shift besides others"
        onClick={(e) => listenToPath(path.id, e.shiftKey)}
      >
        {listened ? 'heard' : 'listen'}
      </button>
    </span>
  )
}
