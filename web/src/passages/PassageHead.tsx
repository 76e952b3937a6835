import type { PassageView } from '../api/types'
import { Menu } from '../controls/Menu'
import { NameField } from '../controls/NameField'
import * as passages from '../live/passages'
import { useSession } from '../live/session'
import { setView, useView } from '../live/view'

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
        <h2 className="truncate text-[15px] font-bold">{x.name}</h2>
      )}
      <span className="soft shrink-0 text-[12px]">
        passage, bars <span className="figure">{v.where}</span>
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
