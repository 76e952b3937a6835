import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type KeyboardEvent, useState } from 'react'
import type { Thing } from '../api/types'
import { SideList } from '../controls/SideList'
import { type Words, WordsForm } from '../controls/WordsForm'
import { notice, refused, theProject } from '../session/store'
import { setView } from '../session/view'
import { find, type Wanted } from './find'
import { ShelfSearch } from './ShelfSearch'
import { fromOf, ThingRow } from './ThingRow'
import * as shelf from './actions'
import { useHearing } from './useHearing'

const all: Wanted = { text: '', kind: '', length: '', tempo: 0 }

/** The shelf: sounds for any project. What is chosen is heard; it is put down at the playhead or dragged onto a row. With
    clips it asks for their name first. */
export function ShelfCard({ clips }: { clips?: string[] }) {
  const client = useQueryClient()
  const { data } = useQuery({ queryKey: ['shelf'], queryFn: shelf.list })
  const [wanted, setWanted] = useState(all)
  const [chosen, setChosen] = useState('')
  const [naming, setNaming] = useState<Thing | 'new' | null>(clips ? 'new' : null)
  const hearing = useHearing()
  const found = find(data ?? [], wanted)
  const now = found.find((t) => t.id === chosen)
  const again = async () => {
    await client.cancelQueries({ queryKey: ['shelf'] }) // what was asked before does not know of it
    await client.invalidateQueries({ queryKey: ['shelf'] })
  }
  const choose = (t: Thing) => {
    setChosen(t.id)
    hearing.turn(t)
  }
  const takeOff = (t: Thing) => {
    shelf.takeOff(t).then(() => {
      notice(`${t.name} is off the shelf. Projects keep what they have of it.`, 'info', {
        text: 'Put it back',
        run: () => void shelf.putBack(t).then(again),
      })
      return again()
    }, refused)
  }
  const save = async (words: Words) => {
    const t = naming === 'new' ? await shelf.keep(clips ?? [], words) : await shelf.rename(naming!, words)
    setChosen(t.id)
    await again()
  }
  const key = (e: KeyboardEvent) => {
    if (naming) return
    const by = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0
    const next = found[Math.max(0, Math.min(found.length - 1, found.findIndex((t) => t.id === chosen) + by))]
    if (by && next) choose(next)
    if (e.key === 'Enter' && now && (e.target as HTMLElement).tagName !== 'BUTTON') void shelf.putDown(now.id)
    if (by) e.preventDefault()
  }
  return (
    <SideList
      label="Shelf"
      width={560}
      onClose={() => setView({ dialog: null })}
      onKey={key}
      head="The shelf"
      foot={<Foot thing={now} />}
    >
      {naming && (
        <WordsForm
          of="thing"
          act={naming === 'new' ? 'Put on the shelf' : 'Name it so'}
          now={naming === 'new' ? { name: nameOf(clips), says: '', tags: [] } : naming}
          onDone={() => setNaming(null)}
          onSave={save}
        />
      )}
      <ShelfSearch wanted={wanted} onWant={(w) => setWanted({ ...wanted, ...w })} quiet={naming !== null} />
      <div className="mt-1 min-h-0 overflow-y-auto" role="listbox" aria-label="Things on the shelf">
        {found.map((t) => (
          <ThingRow
            key={t.id}
            thing={t}
            chosen={t.id === chosen}
            heard={hearing.of === t.id ? hearing.how : ''}
            onHear={() => choose(t)}
            onPut={() => void shelf.putDown(t.id)}
            onRename={() => setNaming(t)}
            onTakeOff={() => takeOff(t)}
          />
        ))}
        {!data && <p className="soft p-2">The sounds that come with Shoal are being made…</p>}
        {data && !found.length && <p className="soft p-2">Nothing on the shelf is like that.</p>}
      </div>
    </SideList>
  )
}

const Foot = ({ thing }: { thing?: Thing }) => (
  <>
    {thing ? `${fromOf(thing)} ` : ''}
    Arrows hear, Enter puts it down at the playhead; or drag it onto a row. While the song plays it is heard
    on the selected track.
  </>
)

/** What clips are called before they are named. */
const nameOf = (clips?: string[]) =>
  theProject()
    ?.channels.flatMap((c) => c.clips)
    .find((x) => x.id === clips?.[0])?.name ?? ''
