import { remarkOn } from '../remarks/about'
import { useForkWords } from '../session/outline'
import type { Channel, Fork, Path } from '../api/types'
import { Menu } from '../controls/Menu'
import { listenTo, listenToAll } from '../session/listening'
import { setView, useView } from '../session/view'
import * as forks from './forks'
import { duplicateStage, removeStage, shiftStage, toggleBypass } from './stages'

/** The head of a fork on the bench: what it is, in and out, and what can be done with it and its paths. */
export function ForkHead({ fork, path, channel }: { fork: Fork; path: Path | null; channel: Channel }) {
  const { kind } = useForkWords(fork)
  const lit = useView((v) => v.listening?.node === fork.id)
  const whole = [
    { text: 'Make the paths equally loud', run: () => void forks.level(fork, 'paths') },
    { text: 'Keep the level: out as loud as in', run: () => void forks.level(fork, 'output') },
    { text: 'Spread the paths to rows', run: () => void forks.spread(fork) },
  ]
  return (
    <div className="mb-1.5 flex h-7 shrink-0 items-center gap-2">
      <h2 className="shrink-0 text-head font-bold whitespace-nowrap">{fork.name || 'Fork'}</h2>
      <span className="soft line-clamp-2 min-w-0 text-small leading-[14px]">
        {kind} on {channel.name}
      </span>
      <span className="ml-auto flex shrink-0 items-center gap-1">
        <button
          className={`btn btn-xs font-normal ${lit ? 'btn-secondary' : 'btn-outline'}`}
          aria-pressed={lit}
          title="Hear the chain up to here ( J )"
          onClick={() => (lit ? listenToAll() : listenTo(fork.id, false))}
        >
          Listen
        </button>
        <span className="flex gap-0.5">
          {[false, true].map((out) => (
            <button
              key={String(out)}
              className={`btn btn-xs px-2 ${fork.bypass === out ? 'btn-primary' : 'btn-outline font-normal'}`}
              aria-pressed={fork.bypass === out}
              title={out ? 'Bypass ( B )' : undefined}
              onClick={() => fork.bypass !== out && toggleBypass(fork.id)}
            >
              {out ? 'Out' : 'In'}
            </button>
          ))}
        </span>
        <Menu
          label="Paths of the fork"
          named={path ? `path ${path.id}` : undefined}
          className="btn btn-xs btn-outline font-normal"
          items={[
            fork.kind === 'bands'
              ? {
                  text: path ? `Divide ${path.name} in two` : 'Divide the highest band',
                  run: () => void forks.morePaths(fork, path),
                }
              : {
                  text: 'Add a path',
                  run: () => void forks.morePaths(fork, path),
                  off: fork.kind !== 'copies',
                },
            ...(path
              ? [
                  { text: `Name ${path.name}`, key: 'N', run: () => setView({ renaming: path.id }) },
                  {
                    text: `Duplicate ${path.name}`,
                    key: 'U',
                    run: () => void forks.duplicatePath(path),
                    off: fork.kind !== 'copies',
                  },
                  {
                    text: `Remove ${path.name}`,
                    key: 'Del',
                    run: () => void forks.removePath(fork, path),
                    off: fork.kind === 'leftright' || fork.kind === 'midside',
                  },
                  {
                    text: 'Up among the paths',
                    key: 'Alt ↑',
                    run: () => void forks.shiftPath(fork, path, -1),
                    off: fork.kind !== 'copies',
                  },
                  {
                    text: 'Down',
                    key: 'Alt ↓',
                    run: () => void forks.shiftPath(fork, path, 1),
                    off: fork.kind !== 'copies',
                  },
                ]
              : []),
            ...whole,
          ]}
        >
          Paths ▾
        </Menu>
        <Menu
          label="Menu of the fork"
          named={`stage ${fork.id}`}
          className="btn btn-xs btn-ghost px-1"
          items={[
            { text: 'Name it', key: 'N', run: () => setView({ renaming: fork.id }) },
            {
              text: 'Presets of forks',
              key: 'W',
              run: () => setView({ dialog: { kind: 'presets', of: 'fork', target: fork.id } }),
            },
            {
              text: path ? `Dissolve: only ${path.name} stays` : 'Dissolve into one path',
              run: () => void forks.dissolve(fork, path?.id ?? ''),
            },
            ...whole,
            {
              text: `Say something about ${path ? path.name : 'it'}`,
              key: '⇧Z',
              run: () => remarkOn({ at: path?.id ?? fork.id, from: 0, to: 0 }),
            },
            { text: 'Duplicate', key: 'U', run: () => void duplicateStage(fork.id) },
            { text: 'Earlier', key: 'Alt ←', run: () => shiftStage(fork.id, -1) },
            { text: 'Later', key: 'Alt →', run: () => shiftStage(fork.id, 1) },
            { text: 'Remove', key: 'Del', run: () => void removeStage(fork.id) },
          ]}
        >
          ⋯
        </Menu>
      </span>
    </div>
  )
}
