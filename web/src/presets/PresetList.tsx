import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { answer, api } from '../api/client'
import type { Preset } from '../api/types'
import { SideList } from '../controls/SideList'
import { WordsForm } from '../controls/WordsForm'
import { effectOf, findStage, stageName } from '../document/chain'
import { useSession } from '../session/store'
import { PresetFiles } from './PresetFiles'
import { PresetRow } from './PresetRow'
import { PresetTags } from './PresetTags'
import * as presets from './actions'
import { find, freshName, tagsOf } from './find'
import { type PresetOf, shutList, useTrying } from './useTrying'

type Props = { of: PresetOf; target: string }

/** Presets for a stage, a chain or a row. The one that is chosen is heard at once; leaving the list brings the old setting back. */
export function PresetList({ of, target }: Props) {
  const { data } = useQuery({ queryKey: ['presets'], queryFn: () => answer(api.GET('/api/presets')) })
  const project = useSession((s) => s.project)!
  const effects = useSession((s) => s.effects)
  const stage = findStage(project, target)?.stage
  const effect = stage && effectOf(stage, effects)
  const [text, setText] = useState('')
  const [tag, setTag] = useState('')
  const [chosen, setChosen] = useState('')
  const [saving, setSaving] = useState<Preset | 'new' | null>(null)
  const here = useMemo(() => find(data ?? [], of, effect?.id ?? '', '', ''), [data, of, effect])
  const found = find(here, of, effect?.id ?? '', text, tag)
  const { again, tryOut, take, bin, keep } = useTrying(of, target, setChosen)
  /** A name that nothing goes by: the present setting can be kept under it. */
  const fresh = data && !tag && !found.some((p) => p.id === chosen) ? freshName(here, text) : ''
  const step = (by: number) => {
    const i = found.findIndex((p) => p.id === chosen)
    const next = found[Math.max(0, Math.min(found.length - 1, i + by))]
    if (next) tryOut(next)
  }
  const what =
    of === 'stage'
      ? stage
        ? stageName(stage, effects)
        : ''
      : { chain: 'the chain', fork: 'the fork', channel: 'the row' }[of]
  return (
    <SideList
      label="Presets"
      onClose={shutList}
      onKey={(e) => {
        if (saving) return
        if (e.key === 'ArrowDown') step(1)
        if (e.key === 'ArrowUp') step(-1)
        const p = found.find((x) => x.id === chosen)
        const typed = (e.target as HTMLElement).tagName !== 'BUTTON'
        if (e.key === 'Enter' && p && typed) void take(p)
        if (e.key === 'Enter' && fresh && typed) void keep(fresh)
        if (['ArrowDown', 'ArrowUp'].includes(e.key)) e.preventDefault()
      }}
      head={<span>Presets for {what}</span>}
      foot={
        <span className="flex items-center justify-between gap-2">
          <span>
            Arrows try, Enter takes, Esc brings the old setting back. Dragged onto a clip or a chain it is
            added there.
          </span>
          <PresetFiles found={found} all={data ?? []} name={effect?.id ?? of} onImported={again} />
        </span>
      }
    >
      <div className="flex gap-1.5">
        <input
          autoFocus
          className="input input-sm w-full"
          placeholder="Search: voice, short, dark…"
          aria-label="Search presets"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <button className="btn btn-sm btn-outline shrink-0 font-normal" onClick={() => setSaving('new')}>
          Save
        </button>
      </div>
      {saving && (
        <WordsForm
          of="preset"
          act={saving === 'new' ? 'Save the present setting' : 'Rename'}
          now={saving === 'new' ? undefined : saving}
          onDone={() => setSaving(null)}
          onSave={async (words) => {
            if (saving === 'new') await presets.save(words, of, target)
            else await presets.rename({ ...saving, ...words }, words.name)
            void again()
          }}
        />
      )}
      {fresh && (
        <p className="soft mt-2 text-small">
          None goes by “{fresh}”: Enter keeps the present setting under that name.
        </p>
      )}
      <PresetTags tags={tagsOf(here).slice(0, 10)} on={tag} onPick={setTag} />
      <div className="mt-2 min-h-0 overflow-y-auto" role="listbox" aria-label="Presets">
        {found.map((p) => (
          <PresetRow
            key={p.id}
            preset={p}
            chosen={p.id === chosen}
            onTry={() => tryOut(p)}
            onTake={() => void take(p)}
            onRename={() => setSaving(p)}
            onBin={() => void bin(p)}
          />
        ))}
        {data && !fresh && found.length === 0 && (
          <p className="soft p-2">
            {here.length ? 'No preset matches.' : 'There are none yet: Save keeps the present setting.'}
          </p>
        )}
      </div>
    </SideList>
  )
}
