import { chosenLook } from '../controls/list'
import type { Preset } from '../api/types'
import { carry } from '../board/carry'
import { Menu } from '../controls/Menu'
import { exportAll } from './actions'

type Props = {
  preset: Preset
  chosen: boolean
  onTry: () => void
  onTake: () => void
  onRename: () => void
  onBin: () => void
}

/** One preset in the list: a press lets it be heard, another takes it; it is dragged onto clips and chains. */
export function PresetRow({ preset: p, chosen, onTry, onTake, onRename, onBin }: Props) {
  return (
    <div className="group flex items-start gap-1 rounded-[2px] px-2 py-1" style={chosenLook(chosen)}>
      <button
        role="option"
        aria-selected={chosen}
        draggable
        onDragStart={(e) => carry(e, { preset: p.id })}
        className="min-w-0 grow text-left"
        onClick={chosen ? onTake : onTry}
        title={chosen ? 'Take it' : 'Try it'}
      >
        <span className="font-semibold">{p.name}</span>
        {!p.shipped && <span className="soft text-small"> · saved here</span>}
        <span className="soft block text-small">{p.says}</span>
        {p.unknown.length > 0 && (
          <span className="block text-small font-semibold">
            Unknown here, kept and left out: {p.unknown.join(', ')}
          </span>
        )}
      </button>
      {chosen && (
        <button className="btn btn-xs btn-primary" onClick={onTake}>
          Take
        </button>
      )}
      {!p.shipped && (
        <Menu
          label={`Menu of ${p.name}`}
          className="btn btn-xs btn-ghost px-1"
          items={[
            { text: 'Rename', run: onRename },
            { text: 'Export as a file', run: () => void exportAll([p], p.name) },
            { text: 'Delete', run: onBin },
          ]}
        >
          ⋯
        </Menu>
      )}
    </div>
  )
}
