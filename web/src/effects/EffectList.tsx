import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { answer, api } from '../api/client'
import type { EffectInfo } from '../api/types'
import { insertFork } from '../bench/forks'
import { addStage, replacement, replaceStage } from '../bench/stages'
import { treat } from '../clips/treatment'
import { chosenOf, SearchList, useSearch } from '../controls/SearchList'
import { newest } from '../document/chain'
import { focusOn } from '../keys/focus'
import { printAsBefore } from '../prints/ofRow'
import { tryChanges } from '../session/changes'
import { placeInWords, rowOf } from '../session/selected'
import { refused, theProject, useSession } from '../session/store'
import { setView } from '../session/view'
import { EffectOption } from './EffectOption'
import { PresetWays } from './PresetWays'
import { forkEntries, forkOf } from './forks'
import { addPreset, foundPresets, presetEntries, presetOf, presetsOf } from './presets'
import { favourites, held, recent, remember, search, toggleFavourite } from './search'

type Props = { owner: string; index: number; replace?: string; clips?: string[] }

/** The list of effects: favourites, recent ones, families, search with synonyms. When a stage is to be replaced,
    the one that is chosen is heard in its place before it is taken. */
export function EffectList({ owner, index, replace, clips }: Props) {
  const all = useSession((s) => s.effects)
  const effects = useMemo(() => {
    // what needs the whole sound stands in the treatment of a piece, and there in no path
    const whole = !!clips || theProject()?.treatments?.some((t) => t.id === owner)
    const now = newest(all).filter((e) => whole || !e.whole)
    return replace || clips ? now : [...now, ...forkEntries]
  }, [all, replace, clips, owner])
  const place = clips ? 'the treatment of the selected clips' : `${placeInWords(owner)}, place ${index + 1}`
  const by = useSearch(replace ? -1 : 0)
  const { text } = by
  const [likes, setLikes] = useState(favourites)
  const [recents] = useState(recent)
  const { data: presets } = useQuery({
    queryKey: ['presets'],
    queryFn: () => answer(api.GET('/api/presets')),
    enabled: !replace && !clips,
  })
  const settings = useMemo(() => presetEntries(presets ?? [], newest(all)), [presets, all])
  const [of, setOf] = useState('')
  const open = (what: string) => {
    by.search('')
    setOf(what)
  }
  const found = useMemo(() => {
    const ready = replace || clips ? [] : foundPresets(settings, text)
    if (of && !text) return presetsOf(settings, of, effects)
    const list = search(effects, text, recents, likes)
    if (!ready.length) return list
    const family = { name: 'Presets', effects: ready }
    return held(effects, text) ? [...list, family] : [family] // what only comes near is not meant
  }, [effects, settings, text, recents, likes, replace, clips, of])
  const shut = () => setView({ dialog: null })
  /** Reports whether it is there. */
  const add = async (e: EffectInfo, off: boolean) => {
    const preset = presetOf(e.id)
    const fork = forkOf(e.id)
    if (!preset) remember(e.id)
    if (clips) return treat(clips, e)
    if (fork) return insertFork(fork.kind, fork.bands, owner, index)
    if (replace) return replaceStage(replace, e)
    const id = preset ? await addPreset(preset, owner, index) : await addStage(e, owner, index, off)
    focusOn(id)
    return id !== ''
  }
  const row = rowOf(owner)
  const prints = !replace && !clips && row?.kind === 'track'
  const take = async (e: EffectInfo, key: { shiftKey: boolean; altKey: boolean }) => {
    shut()
    if ((await add(e, key.shiftKey)) && key.altKey && prints) printAsBefore(rowOf(owner)!)
  }
  const best = text ? search(newest(all), text, [])[0]?.effects[0] : undefined
  const elsewhere = best?.whole ? best : undefined
  const flat = found.flatMap((g) => g.effects)
  const count = (of: string) => (replace || clips ? 0 : settings.filter((p) => p.of === of).length)
  const chosen = chosenOf(flat, by.at)
  useEffect(() => {
    if (replace && chosen) tryChanges([replacement(replace, chosen)]).catch(refused)
  }, [replace, chosen])
  useEffect(() => () => void (replace && tryChanges([])), [replace])
  return (
    <SearchList
      label="Effects"
      things="Effects"
      placeholder="Search effects and presets: echo, warm, level…"
      width={620}
      head={<span>{replace ? 'Replace the stage by' : `Add to ${place}`}</span>}
      foot={
        replace
          ? 'Arrows let it be heard in place, Enter takes it, Esc keeps the old one.'
          : `Enter adds it, Shift Enter adds it switched off` +
            `${prints ? ', Alt Enter adds it and prints the row' : ''}, → its presets, * marks it. Or drag it onto a chain.`
      }
      above={!text && !replace && !clips && <PresetWays of={of} count={count} onOpen={open} />}
      by={by}
      found={flat}
      onTake={(e, key) => void take(e, key)}
      onClose={shut}
      onKey={(e) => {
        if (e.key === 'ArrowLeft' && of && !text) setOf('')
        else if (!chosen || presetOf(chosen.id)) return
        else if (e.key === '*') setLikes(toggleFavourite(chosen.id))
        else if (e.key === 'ArrowRight' && !text && count(chosen.id)) open(chosen.id)
        else return
        e.preventDefault()
      }}
    >
      {found.map((g) => (
        <div key={g.name} className="mb-2">
          <div className="water-label text-small">{g.name}</div>
          <div className="grid grid-cols-2 gap-x-2">
            {g.effects.map((e) => (
              <EffectOption
                key={e.id}
                of={e}
                chosen={e === chosen}
                liked={likes.includes(e.id)}
                onTake={(key) => void take(e, key)}
                onLike={() => setLikes(toggleFavourite(e.id))}
                presets={count(e.id)}
                onPresets={() => open(e.id)}
              />
            ))}
          </div>
        </div>
      ))}
      {elsewhere && !flat.includes(elsewhere) && (
        <p className="soft p-2">
          {elsewhere.name} needs the whole sound: select a clip and press / , or print the row first.
        </p>
      )}
      {flat.length === 0 && !elsewhere && <p className="soft p-2">No effect goes by “{text}”.</p>}
    </SearchList>
  )
}
