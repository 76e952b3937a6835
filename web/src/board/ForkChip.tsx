import type { Fork, Path } from '../api/types'
import { useForkWords } from '../session/outline'
import { pick } from '../bench/pick'
import { Depth } from '../controls/Depth'
import { Hover } from '../controls/Hover'
import { holds } from '../document/chain'
import { select } from '../session/selected'
import { setView, useView } from '../session/view'
import { RemarkOn } from '../remarks/RemarkMark'
import { ForkGlyph } from './ForkGlyph'
import { OthersOn } from './Others'
import { StageChip } from './StageChip'
import { besides, carried, carryStage } from './carry'
import { menuOnBench } from './menuOnBench'

type Props = { fork: Fork; channel: string; owner: string; index: number; chainOff: boolean }

/** A fork on a row: a small braid. With the pointer or the focus on it, its paths open below. */
export function ForkChip({ fork, channel, owner, index, chainOff }: Props) {
  const selected = useView(
    (v) => v.stage === fork.id || fork.paths.some((p) => p.id === v.stage || holds(p.chain.nodes, v.stage)),
  )
  const together = useView((v) => v.together.includes(fork.id))
  const off = fork.bypass || chainOff
  const { title } = useForkWords(fork)
  return (
    <Hover label={`Paths of ${title}`} panel={() => <OpenFork fork={fork} channel={channel} off={off} />}>
      {(open) => (
        <button
          type="button"
          draggable
          aria-expanded={open}
          data-fork={fork.id}
          aria-pressed={selected || together}
          aria-label={`${title}, ${fork.paths.length} paths${off ? ', bypassed' : ''}`}
          className="flex h-6 items-center gap-1.5 rounded-[2px] border px-1.5 text-small whitespace-nowrap"
          style={{
            background: off ? 'transparent' : together ? 'var(--shoal-2)' : 'var(--card)',
            borderColor: selected ? 'var(--ink)' : 'var(--deep)',
            borderStyle: off ? 'dashed' : 'solid',
            borderWidth: selected ? 2 : 1,
          }}
          onClick={(e) => pick(e, channel, fork.id)}
          onContextMenu={menuOnBench(channel, fork.id)}
          onDoubleClick={() => setView({ renaming: fork.id, bench: true })}
          onDragStart={(e) => carryStage(e, fork.id)}
          {...besides(owner, index)}
        >
          <ForkGlyph paths={fork.paths.length} width={22} />
          <span className={`max-w-[180px] truncate ${off ? 'struck soft' : ''}`}>
            {fork.name || `${fork.paths.length} paths`}
          </span>
          <OthersOn node={fork.id} />
          <RemarkOn node={fork.id} />
        </button>
      )}
    </Hover>
  )
}

/** The paths of a fork, one below the other; forks inside them open too. */
function OpenFork({ fork, channel, off }: { fork: Fork; channel: string; off: boolean }) {
  return fork.paths.map((p) => <OpenPath key={p.id} path={p} channel={channel} off={off} />)
}

function OpenPath({ path, channel, off }: { path: Path; channel: string; off: boolean }) {
  const selected = useView((v) => v.stage === path.id)
  const hollow = off || path.chain.bypass
  return (
    <span
      className="flex items-center gap-1 text-small whitespace-nowrap"
      onDragOver={(e) => carried(e) && e.preventDefault()}
      onDrop={(e) => {
        const c = carried(e)
        if (!c) return
        e.preventDefault()
        e.stopPropagation()
        c.drop(path.id, path.chain.nodes.length)
      }}
    >
      <button
        className="h-6 max-w-[180px] min-w-[84px] truncate px-1 text-left"
        style={{ fontWeight: selected ? 700 : 400 }}
        aria-label={`Path ${path.name}${path.mute ? ', muted' : ''}`}
        onClick={() => select(channel, path.id)}
        onContextMenu={menuOnBench(channel, path.id, 'path')}
      >
        <span className={path.mute ? 'struck soft' : ''}>{path.name}</span>
      </button>
      {path.chain.nodes.length === 0 && <span className="soft px-1 text-small">dry</span>}
      {path.chain.nodes.map((n, i) =>
        n.stage ? (
          <StageChip
            key={n.stage.id}
            stage={n.stage}
            channel={channel}
            owner={path.id}
            index={i}
            chainOff={hollow}
            size="full"
          />
        ) : (
          <span
            key={n.fork!.id}
            className="flex items-center gap-1 rounded-[2px] border px-1"
            style={{ borderColor: 'var(--deep)' }}
          >
            <ForkGlyph paths={n.fork!.paths.length} />
            <span className="flex flex-col">
              <OpenFork fork={n.fork!} channel={channel} off={hollow || n.fork!.bypass} />
            </span>
          </span>
        ),
      )}
      <span className="ml-auto pl-2">
        <Depth point={`path ${path.id}`} title={`Level at the end of ${path.name}`} />
      </span>
    </span>
  )
}
