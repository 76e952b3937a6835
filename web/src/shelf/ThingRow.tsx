import { chosenLook } from '../controls/list'
import type { Thing } from '../api/types'
import { carry } from '../board/carry'
import { Menu } from '../controls/Menu'
import { SmallWave } from '../clips/SmallWave'

type Props = {
  thing: Thing
  chosen: boolean
  /** How it is heard just now; empty: it is not. */
  heard: string
  onHear: () => void
  onPut: () => void
  onRename: () => void
  onTakeOff: () => void
}

/** A thing on the shelf: a press lets it be heard, another ends that; it is dragged onto a row. */
export function ThingRow({ thing: t, chosen, heard, onHear, onPut, onRename, onTakeOff }: Props) {
  return (
    <div className="flex items-center gap-2 rounded-[2px] px-2 py-1" style={chosenLook(chosen)}>
      <button
        role="option"
        aria-selected={chosen}
        draggable
        onDragStart={(e) => carry(e, { thing: t.id })}
        className="flex min-w-0 grow cursor-grab items-center gap-2.5 text-left"
        onClick={onHear}
        title={heard ? 'Stop' : 'Hear it'}
      >
        <SmallWave hash={t.heard} frames={t.frames} width={120} />
        <span className="min-w-0 grow">
          <span className="flex items-baseline gap-2">
            <span className="truncate font-semibold">{t.name}</span>
            <span className="figure soft ml-auto shrink-0 text-small">{facts(t)}</span>
          </span>
          <span className="soft block truncate text-small" title={t.says}>
            {heard ? <span style={{ color: 'var(--ink)' }}>Heard {heard}</span> : t.says || fromOf(t)}
          </span>
        </span>
      </button>
      {chosen && (
        <button className="btn btn-xs btn-primary" onClick={onPut}>
          Put down
        </button>
      )}
      {!t.shipped && (
        <Menu
          label={`Menu of ${t.name}`}
          className="btn btn-xs btn-ghost px-1"
          items={[
            { text: 'Name it anew', run: onRename },
            { text: 'Take it off the shelf', run: onTakeOff },
          ]}
        >
          ⋯
        </Menu>
      )}
    </div>
  )
}

/** What it is, in figures. */
const facts = (t: Thing) =>
  [
    t.kind === 'slices' ? `${t.kept.clips.length} slices` : t.kind === 'print' ? 'print' : '',
    t.pitch,
    t.tempo ? `${t.tempo.toFixed(0)} bpm` : '',
    `${(t.frames / t.kept.rate).toFixed(1)} s`,
  ]
    .filter(Boolean)
    .join(' · ')

/** Where it came from. */
export const fromOf = (t: Thing) =>
  t.shipped
    ? 'It comes with Shoal.'
    : `${[
        `From ${t.from.row} in ${t.from.project}`,
        t.from.author && `put here by ${t.from.author}`,
        t.from.time && new Date(t.from.time).toLocaleDateString(),
      ]
        .filter(Boolean)
        .join(', ')}.`
