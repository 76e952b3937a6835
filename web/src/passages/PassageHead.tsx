import type { PassageView } from '../api/types'
import { Menu } from '../controls/Menu'
import { NameField } from '../controls/NameField'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import * as passages from './actions'

/** The head of a passage: its name, where it lies, audition, in and out, and what else can be done with it. */
export function PassageHead({ v }: { v: PassageView }) {
  const x = v.passage
  const renaming = useView((s) => s.renaming === x.id)
  const sections = useSession((s) => s.project?.sections ?? [])
  return (
    <div className="mb-1.5 flex items-center gap-2">
      {renaming ? (
        <NameField
          name={x.name}
          label="Name of the passage"
          onName={(name) => void passages.set(x, { name }, 'Rename')}
        />
      ) : (
        <h2 className="truncate text-head font-bold">{x.name}</h2>
      )}
      <span className="soft flex shrink-0 items-center gap-1 text-small">
        bars
        <PlaceField
          at={v.begin}
          label="Begins at bar.beat"
          onPlace={(fromAt) => passages.setPlaces(x, { fromAt })}
        />
        –
        <PlaceField at={v.end} label="Ends at bar.beat" onPlace={(toAt) => passages.setPlaces(x, { toAt })} />
      </span>
      <span className="ml-auto flex shrink-0 items-center gap-1">
        <button
          className="btn btn-xs btn-outline font-normal"
          title="Plays it in a loop, from two bars before it"
          onClick={() => passages.audition(v)}
        >
          Audition
        </button>
        <button
          className={`btn btn-xs min-h-6 w-8 px-0 ${x.off ? 'btn-outline font-normal' : 'btn-primary'}`}
          aria-pressed={!x.off}
          onClick={() => x.off && void passages.set(x, { off: false }, 'Switch on')}
        >
          In
        </button>
        <button
          className={`btn btn-xs min-h-6 w-8 px-0 ${x.off ? 'btn-primary' : 'btn-outline font-normal'}`}
          aria-pressed={x.off}
          onClick={() => !x.off && void passages.set(x, { off: true }, 'Switch off')}
        >
          Out
        </button>
        <Menu
          label="Menu of the passage"
          named={`passage ${x.id}`}
          className="btn btn-xs btn-ghost px-1"
          items={[
            { text: 'Name it', key: 'N', run: () => setView({ renaming: x.id }) },
            ...sections.map((s) => ({
              text: `Copy it to the beginning of ${s.name}`,
              run: () => void passages.copyTo(x, { section: s.id }),
            })),
            { text: 'Copy it to the playhead', run: () => void passages.copyToPlayhead(x) },
            { text: 'Turn it into plain lines', run: () => void passages.makePlain(x) },
            { text: 'Remove it with all it brought', key: 'Del', run: () => void passages.remove(x) },
          ]}
        >
          ⋯
        </Menu>
      </span>
    </div>
  )
}

/** A place in the song that can be typed; one that cannot be read is said so, and the old one stays. */
function PlaceField(p: { at: string; label: string; onPlace: (at: string) => Promise<boolean> }) {
  return (
    <input
      key={p.at}
      className="input input-xs figure w-[60px] px-1 text-small"
      aria-label={p.label}
      title={`${p.label}, as 29.1, or 29.1.50 for halfway to the next beat`}
      defaultValue={p.at}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Escape') e.currentTarget.value = p.at
        if (e.key === 'Enter' || e.key === 'Escape') e.currentTarget.blur()
      }}
      onBlur={async (e) => {
        const el = e.currentTarget
        if (el.value.trim() !== p.at && !(await p.onPlace(el.value))) el.value = p.at
      }}
    />
  )
}
