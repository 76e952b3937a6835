import type { Chain, Channel, EffectInfo, Fork, Node, Path, Project, Stage, Treatment } from '../api/types'

/* Finding the way in a chain: stages, forks and the paths inside them. */

export const idOf = (n: Node): string => n.stage?.id ?? n.fork!.id

const rowsOfTreatments = new WeakMap<Treatment, Channel>()

/** What stands in a row's place where a treatment's chain is shown: the same for the same treatment. */
export function treatmentRow(t: Treatment): Channel {
  const known = rowsOfTreatments.get(t)
  if (known) return known
  const row: Channel = {
    id: t.id,
    kind: 'track',
    name: t.name || 'Treatment',
    tint: 0,
    stereo: true,
    hidden: false,
    chain: t.chain,
    trials: [],
    letter: 'A',
    waterline: '',
    fader: 0,
    pan: 0,
    mute: false,
    mutePre: false,
    soloSafe: false,
    output: '',
    sends: [],
    clips: [],
  }
  rowsOfTreatments.set(t, row)
  return row
}

/** All that has a chain: rows, and treatments in the place of rows. */
export const chained = (p: Project | null): Channel[] => [
  ...(p?.channels ?? []),
  ...(p?.treatments ?? []).map(treatmentRow),
]

/** Where a node stands: the chain that holds it, by its owner, and the fork and path around it. */
export type Place = {
  nodes: Node[]
  index: number
  owner: string
  around: { fork: Fork; path: Path; place: Place } | null
}

/** Where a node stands in a chain or in the paths of it. */
export function placeIn(
  owner: string,
  nodes: Node[],
  id: string,
  around: Place['around'] = null,
): Place | null {
  for (const [index, n] of nodes.entries()) {
    const here: Place = { nodes, index, owner, around }
    if (idOf(n) === id) return here
    for (const path of n.fork?.paths ?? []) {
      const found = placeIn(path.id, path.chain.nodes, id, { fork: n.fork!, path, place: here })
      if (found) return found
    }
  }
  return null
}

/** A path, with the place of its fork. */
export function pathIn(
  owner: string,
  nodes: Node[],
  id: string,
  around: Place['around'] = null,
): Place['around'] {
  for (const [index, n] of nodes.entries()) {
    const place: Place = { nodes, index, owner, around }
    for (const path of n.fork?.paths ?? []) {
      const here = { fork: n.fork!, path, place }
      const found = path.id === id ? here : pathIn(path.id, path.chain.nodes, id, here)
      if (found) return found
    }
  }
  return null
}

/** The fork that is meant by the id of a fork or of a path of it, with that path. */
export function findFork(
  project: Project | null,
  id: string,
): { fork: Fork; path: Path | null; channel: Channel } | null {
  for (const channel of chained(project)) {
    for (const { owner, chain } of chainsOf(channel)) {
      const at = placeIn(owner, chain.nodes, id)
      const fork = at?.nodes[at.index]?.fork
      if (fork) return { fork, path: null, channel }
      const path = pathIn(owner, chain.nodes, id)
      if (path) return { ...path, channel }
    }
  }
  return null
}

/** A stage or fork, with the row that it stands on. */
export function findNode(project: Project | null, id: string): { node: Node; channel: Channel } | null {
  for (const channel of chained(project)) {
    for (const { owner, chain } of chainsOf(channel)) {
      const at = placeIn(owner, chain.nodes, id)
      if (at) return { node: at.nodes[at.index]!, channel }
    }
  }
  return null
}

/** Every node of a chain, in the order of the signal, paths after their fork. */
export function* along(nodes: Node[]): Generator<Node> {
  for (const n of nodes) {
    yield n
    for (const p of n.fork?.paths ?? []) yield* along(p.chain.nodes)
  }
}

/** Whether a node or path is somewhere in these nodes. */
export const holds = (nodes: Node[], id: string): boolean =>
  nodes.some((n) => idOf(n) === id || n.fork?.paths.some((p) => p.id === id || holds(p.chain.nodes, id)))

export type Way = 'left' | 'right' | 'up' | 'down'

/** Where an arrow key leads from a stage, fork or path: along the signal, into a fork and out of it, and
    across its paths. Empty: nowhere in the chain. */
export function onward(chain: Chain, from: string, way: Way): string {
  const at = placeIn('', chain.nodes, from)
  if (at) return fromNode(at, way)
  const path = pathIn('', chain.nodes, from)
  return path ? fromPath(path, way) : ''
}

function fromNode(at: Place, way: Way): string {
  const n = at.nodes[at.index]!
  switch (way) {
    case 'right':
      return n.fork ? n.fork.paths[0]!.id : after(at)
    case 'left':
      return at.index > 0 ? idOf(at.nodes[at.index - 1]!) : (at.around?.path.id ?? '')
    default:
      return at.around ? across(at.around, way, at.index) : ''
  }
}

function fromPath(here: NonNullable<Place['around']>, way: Way): string {
  const first = here.path.chain.nodes[0]
  switch (way) {
    case 'right':
      return first ? idOf(first) : after(here.place)
    case 'left':
      return here.fork.id
    default:
      return across(here, way, -1)
  }
}

/** What follows a place: the next in its chain, or what follows the fork around it. */
function after(at: Place): string {
  const next = at.nodes[at.index + 1]
  if (next) return idOf(next)
  return at.around ? after(at.around.place) : ''
}

/** The path above or below, at the same place on it if there is one; above the first, the fork itself. */
function across(here: NonNullable<Place['around']>, way: Way, index: number): string {
  const i = here.fork.paths.indexOf(here.path) + (way === 'up' ? -1 : 1)
  if (i < 0) return here.fork.id
  const to = here.fork.paths[i]
  if (!to) return here.path.chain.nodes[index] ? idOf(here.path.chain.nodes[index]) : here.path.id
  const nodes = to.chain.nodes
  return index < 0 || nodes.length === 0 ? to.id : idOf(nodes[Math.min(index, nodes.length - 1)]!)
}

/** Every stage of a chain and of the paths in it. */
export function* stages(nodes: Node[]): Generator<Stage> {
  for (const n of nodes) {
    if (n.stage) yield n.stage
    for (const p of n.fork?.paths ?? []) yield* stages(p.chain.nodes)
  }
}

/** A channel's chain and its trials, each with the id that owns it. */
export function chainsOf(c: Channel): { owner: string; letter: string; chain: Chain }[] {
  return [
    { owner: c.id, letter: c.letter, chain: c.chain },
    ...c.trials.map((t) => ({ owner: t.id, letter: t.letter, chain: t.chain })),
  ]
}

/** The alternative of a channel's chain that this window shows and hears. */
export function shownChain(c: Channel, trials: Record<string, string>) {
  const all = chainsOf(c)
  return all.find((x) => x.owner === trials[c.id]) ?? all[0]!
}

export function findStage(project: Project, id: string): { stage: Stage; channel: Channel } | null {
  for (const channel of chained(project)) {
    for (const { chain } of chainsOf(channel))
      for (const stage of stages(chain.nodes)) if (stage.id === id) return { stage, channel }
  }
  return null
}

/** The stages of all chains whose effect has been mended since: they sound as they did. */
export const olderSounds = (p: Project, effects: EffectInfo[]): Stage[] =>
  chained(p).flatMap((c) =>
    chainsOf(c).flatMap(({ chain }) =>
      [...stages(chain.nodes)].filter((s) => {
        const e = effectOf(s, effects)
        return e !== undefined && e.version < e.newest
      }),
    ),
  )

/** Effects as they are made now, without the older sounds that stages may still have. */
export const newest = (effects: EffectInfo[]) => effects.filter((e) => e.version === e.newest)

export const effectOf = (s: Stage, effects: EffectInfo[]) =>
  effects.find((e) => e.id === s.effect && e.version === s.version)

export const stageName = (s: Stage, effects: EffectInfo[]) =>
  s.name || (effectOf(s, effects)?.name ?? s.effect)
