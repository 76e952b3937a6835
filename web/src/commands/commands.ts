import { insertFork } from '../bench/forks'
import { addStage } from '../bench/stages'
import { rowItems } from '../board/rowItems'
import type { Choice } from '../controls/MenuEntry'
import { choices, choicesOf } from '../controls/menusHere'
import { newest } from '../document/chain'
import { forkEntries, forkOf } from '../effects/forks'
import { remember } from '../effects/search'
import { bindings } from '../keys/bindings'
import { keys } from '../keys/keys'
import { rows, selection } from '../keys/steps'
import { insertAt, nameOf, placeInWords, select, selectedChannel } from '../session/selected'
import { session } from '../session/store'
import { view } from '../session/view'
import { moreItems } from '../topbar/moreItems'
import { isBlind } from '../trials/actions'

/** Something that can be done here and now: what it acts on, its key, and what else it may be looked for by. */
export type Command = { name: string; of: string; key?: string; words: string[]; run: () => unknown }

/** All of them, from the tables of keys, effects, rows and menus. */
export function commands(): Command[] {
  if (isBlind(view().channel)) return ofKeys().filter((c) => c.blind)
  const byKey = ofKeys()
  // what is selected goes first
  return [
    ...byKey.filter((c) => c.here),
    ...ofPlaces(),
    ...byKey.filter((c) => !c.here),
    ...ofMenus(),
    ...ofEffects(),
    ...ofRows(),
  ]
}

/** What is selected, in words. */
function selected(): string {
  const what = selection()
  if (what === 'stage' || what === 'fork') return nameOf(view().stage)
  return what === 'nothing' ? '' : what === 'row' ? (selectedChannel()?.name ?? '') : `the ${what}`
}

/** All that keys do, for what is selected or always: each thing that a key does is a line of its own. A key that does
    something else with what is selected is not said. */
function ofKeys() {
  const now = new Set(bindings.map((b) => b.now()?.run))
  return keys.flatMap((g) =>
    g.list.flatMap((k) => {
      if (k.on && !k.on.includes(selection())) return []
      const runs = Object.values(k.does ?? {})
      const of = k.on ? selected() : g.group
      return (k.each ?? [[k.key, k.says] as const]).flatMap(([key, name], i) => {
        const run = runs[i]
        if (!run) return []
        const said = now.has(run) ? key : undefined
        return [{ name, of, key: said, words: [g.group, k.says], run, blind: k.blind, here: !!k.on }]
      })
    }),
  )
}

/** The menu of what is selected. */
function menuOfSelected(): string {
  const what = selection()
  if (what === 'clip' || what === 'range' || what === 'row') return what
  return `${what === 'fork' ? 'stage' : what} ${view().stage}`
}

/** What the menus of what is selected and of its row offer, and no key does. */
function ofPlaces(): Command[] {
  const row = selectedChannel()
  const list = (items: Choice[], of: string) =>
    items.filter((x) => !x.key).map((x) => ({ name: x.text, of, words: [x.says ?? ''], run: x.run }))
  // the row may be out of sight, and its menu with it
  return [
    ...list(choicesOf(menuOfSelected()), selected()),
    ...(row ? list(choices(rowItems(row)), row.name) : []),
  ]
}

const ofMenus = (): Command[] =>
  moreItems().flatMap((x) =>
    x.off ? [] : [{ name: x.text, of: 'Shoal', key: x.key, words: [], run: x.run }],
  )

/** Every effect and every kind of fork, behind what is selected. */
function ofEffects(): Command[] {
  const row = selectedChannel()
  if (!row) return []
  const { owner, index } = insertAt(row)
  const all = [...newest(session().effects).filter((e) => !e.whole), ...forkEntries]
  return all.map((e) => ({
    name: `Add ${e.name}`,
    of: placeInWords(owner),
    words: [...e.synonyms, e.family, e.says],
    run: () => {
      remember(e.id)
      const fork = forkOf(e.id)
      return fork ? insertFork(fork.kind, fork.bands, owner, index) : addStage(e, owner, index, false)
    },
  }))
}

const ofRows = (): Command[] =>
  rows().map((c) => ({
    name: `Go to ${c.name}`,
    of: c.kind,
    words: ['row', 'select'],
    run: () => select(c.id),
  }))
