import type { Channel, Stage } from '../api/types'
import { carried, carry } from '../board/carry'
import { MiniPicture } from '../board/MiniPicture'
import { Depth } from '../controls/Depth'
import * as act from '../live/actions'
import { stageName, useSession } from '../live/session'
import { setView, useView } from '../live/view'

/** The chain, large: stages joined by the signal, with the depth at every point. */
export function ChainView({ channel }: { channel: Channel }) {
  const stages = channel.chain.nodes.flatMap((n) => (n.stage ? [n.stage] : []))
  return (
    <div className="flex min-h-0 flex-1 flex-col px-3.5 pt-2.5">
      <div className="flex items-center gap-2">
        <h2 className="text-[15px] font-bold">{channel.name}</h2>
        <span className="soft text-[12px]">
          {channel.kind} · {channel.stereo ? 'stereo' : 'mono'}
          {channel.printOf ? ` · printed from ${channel.printOf.name}` : ''}
        </span>
        <span className="ml-auto flex gap-1.5">
          <button
            className={`btn btn-xs font-normal ${channel.chain.bypass ? 'btn-primary' : 'btn-outline'}`}
            aria-pressed={channel.chain.bypass}
            onClick={() => void act.toggleChain(channel)}
            title="Bypass the whole chain (Shift B)"
          >
            Chain {channel.chain.bypass ? 'out' : 'in'}
          </button>
          {channel.kind === 'track' && (
            <button
              className="btn btn-xs btn-outline font-normal"
              onClick={() => setView({ dialog: { kind: 'print', channel: channel.id, target: 'track' } })}
              title="Print this row to a new track ( P )"
            >
              Print
            </button>
          )}
          <button
            className="btn btn-xs btn-outline font-normal"
            onClick={() => setView({ dialog: { kind: 'print', channel: channel.id, target: 'file' } })}
          >
            Export
          </button>
        </span>
      </div>
      <div
        className="flex min-h-0 flex-1 items-center overflow-x-auto"
        onDragOver={(e) => carried(e) && e.preventDefault()}
        onDrop={(e) => {
          const c = carried(e)
          if (!c) return
          e.preventDefault()
          c.drop(channel.id, stages.length)
        }}
      >
        <Wire />
        <Depth point={`in ${channel.id}`} title="Peak at the input, in dB below full scale" />
        {stages.map((s, i) => (
          <span key={s.id} className="flex items-center">
            <Wire />
            <StageCard stage={s} owner={channel.id} index={i} off={channel.chain.bypass} />
            <Wire />
            <Depth point={`after ${s.id}`} />
          </span>
        ))}
        <Wire />
        <button
          className="btn btn-xs btn-outline shrink-0 font-normal"
          onClick={() => setView({ dialog: { kind: 'effects', owner: channel.id, index: stages.length } })}
        >
          Add a stage <kbd className="kbd kbd-xs">/</kbd>
        </button>
      </div>
    </div>
  )
}

const Wire = () => <span className="h-px w-3 shrink-0" style={{ background: 'var(--deep)' }} />

function StageCard({
  stage,
  owner,
  index,
  off,
}: {
  stage: Stage
  owner: string
  index: number
  off: boolean
}) {
  const effects = useSession((s) => s.effects)
  const selected = useView((v) => v.stage === stage.id)
  const renaming = useView((v) => v.renaming === stage.id)
  const name = stageName(stage, effects)
  const hollow = stage.bypass || off
  return (
    <div
      role="button"
      tabIndex={0}
      draggable={!renaming}
      aria-pressed={selected}
      aria-label={`${name}${hollow ? ', bypassed' : ''}, place ${index + 1}`}
      className="flex h-[62px] w-[112px] shrink-0 flex-col justify-between rounded-[3px] border p-2"
      style={{
        background: hollow ? 'transparent' : 'var(--card)',
        borderColor: selected ? 'var(--ink)' : 'var(--deep)',
        borderStyle: hollow ? 'dashed' : 'solid',
        boxShadow: selected ? '0 0 0 1.5px var(--ink)' : undefined,
      }}
      onClick={() => act.select(owner, stage.id)}
      onFocus={() => act.select(owner, stage.id)}
      onDoubleClick={() => setView({ renaming: stage.id })}
      onDragStart={(e) => carry(e, { stage: stage.id })}
      onDragOver={(e) => carried(e) && e.preventDefault()}
      onDrop={(e) => {
        const c = carried(e)
        if (!c) return
        e.preventDefault()
        e.stopPropagation()
        const box = e.currentTarget.getBoundingClientRect()
        c.drop(owner, e.clientX > box.left + box.width / 2 ? index + 1 : index)
      }}
    >
      {renaming ? (
        <input
          autoFocus
          className="input input-xs w-full"
          aria-label="Name of the stage"
          defaultValue={name}
          onFocus={(e) => e.target.select()}
          onKeyDown={(e) => {
            e.stopPropagation()
            if (e.key === 'Escape') setView({ renaming: '' })
            if (e.key === 'Enter') e.currentTarget.blur()
          }}
          onBlur={(e) => {
            if (!useView.getState().renaming) return
            setView({ renaming: '' })
            const next = e.target.value.trim()
            if (next !== name) void act.setStage(stage.id, { name: next }, 'Rename')
          }}
        />
      ) : (
        <span className={`truncate text-[13px] font-semibold ${hollow ? 'struck soft' : ''}`}>{name}</span>
      )}
      <span className="flex items-end justify-between">
        <MiniPicture stage={stage} width={52} height={20} />
        <span className="figure soft text-[11px]">
          {stage.mix < 100 || stage.mixLaw === 'add'
            ? `${stage.mixLaw === 'add' ? '+' : ''}${Math.round(stage.mix)} %`
            : ''}
        </span>
      </span>
    </div>
  )
}
