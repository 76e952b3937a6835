import { Menu } from '../controls/Menu'
import { opens } from '../controls/menuAt'
import { NameField } from '../controls/NameField'
import { useSession } from '../session/store'
import { loopSection } from '../session/transport'
import { setView, useView } from '../session/view'
import * as sections from './actions'

/** A section on the ruler: its name loops it; the menu beside it moves it with everything in it. */
export function SectionHead(p: { section: { id: string; name: string }; left: number; width: number }) {
  const s = p.section
  const renaming = useView((v) => v.renaming === s.id)
  const along = useView((v) => v.along)
  const all = useSession((x) => x.project!.sections)
  return (
    <div
      className="absolute top-0 flex h-6 overflow-hidden text-label whitespace-nowrap"
      style={{ left: p.left, width: p.width, boxShadow: 'inset 0 2px 0 var(--ink)' }}
      onPointerDown={(e) => e.stopPropagation()}
      onContextMenu={opens(`section ${s.id}`)}
    >
      {renaming ? (
        <NameField
          name={s.name}
          label="Name of the section"
          onName={(name) => void sections.rename(s, name, all)}
        />
      ) : (
        <>
          <button
            className="h-6 min-w-6 flex-1 truncate pl-1 text-left font-bold"
            title={`${s.name}: click to loop this section`}
            onClick={() => loopSection(s.id)}
          >
            {s.name}
          </button>
          <Menu
            label={`Menu of the section ${s.name}`}
            named={`section ${s.id}`}
            className="soft h-6 w-6 shrink-0"
            items={[
              { text: 'Rename', run: () => setView({ renaming: s.id }) },
              { text: 'Move it earlier', run: () => sections.move(s, -1) },
              { text: 'Move it later', run: () => sections.move(s, 1) },
              { text: 'Repeat it', run: () => sections.repeat(s) },
              { text: 'Remove it with everything in it', run: () => sections.remove(s) },
              { text: 'Take only its name off', run: () => void sections.removeName(s) },
              { text: 'Begin a section at the playhead', run: () => void sections.begin() },
            ]}
            foot={() => (
              <li className="border-t px-2 py-2 text-small" style={{ borderColor: 'var(--hair)' }}>
                <label className="flex items-center justify-between gap-2 p-0">
                  Take lines and passages along
                  <input
                    type="checkbox"
                    className="toggle toggle-sm"
                    checked={along ?? true}
                    onChange={(e) => setView({ along: e.target.checked })}
                  />
                </label>
              </li>
            )}
          >
            ▾
          </Menu>
        </>
      )}
    </div>
  )
}
