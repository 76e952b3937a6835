import { useRef } from 'react'
import type { Channel, Send } from '../api/types'
import { rowIn } from '../document/rows'
import { RemarkOn } from '../remarks/RemarkMark'
import { sendPoint, usePoints } from '../routing/taps'
import { useTraced } from '../routing/traced'
import { useHeard } from '../session/meters'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { carry } from './carry'
import { menuOnBench } from './menuOnBench'

/** A send on a row: where to, how much, and how much is flowing. */
export function SendChip({ send, channel }: { send: Send; channel: Channel }) {
  const to = useSession((s) => rowIn(s.project, send.to)?.name ?? '?')
  const level = useSession((s) => s.moving[`${send.id} level`] ?? send.level)
  const point = sendPoint(send, usePoints(channel.id))?.text ?? ''
  const traced = useTraced(send.id)
  const bar = useRef<HTMLSpanElement>(null)
  const last = useRef('')
  useHeard((h) => {
    const p = h.peaks.get(`send ${send.id}`)
    const x = p ? Math.max(0, Math.min(1, (Math.max(p[0], p[1]) + 60) / 60)) : 0
    const size = `${(x * 100).toFixed(0)}% 100%`
    if (size !== last.current) bar.current!.style.backgroundSize = last.current = size
  }, 'meter')
  return (
    <button
      className="relative flex h-6 max-w-[200px] min-w-[124px] items-center justify-between gap-1 overflow-hidden rounded-full border px-2 text-label"
      style={{
        background: 'var(--card)',
        borderColor: 'var(--deep)',
        borderStyle: send.mute ? 'dashed' : 'solid',
        outline: traced === null ? undefined : '2px solid var(--ink)',
      }}
      onClick={() => select(channel.id, send.id)}
      onContextMenu={menuOnBench(channel.id, send.id, 'send')}
      draggable
      onDragStart={(e) => carry(e, { send: send.id })}
      title={`Send to ${to}, ${point}${send.mute ? ', muted' : ''}. Drag it to another row to copy it; with Shift silent.`}
    >
      <span
        ref={bar}
        className="absolute inset-x-0 bottom-0 h-[3px] bg-no-repeat"
        style={{ backgroundImage: 'linear-gradient(var(--deep), var(--deep))', backgroundSize: '0 100%' }}
      />
      <RemarkOn node={send.id} />
      <span className={`min-w-0 grow truncate pr-[2px] text-left italic ${send.mute ? 'struck' : ''}`}>
        {to}
      </span>
      <span className="figure shrink-0">{level <= -120 ? 'off' : level.toFixed(0).replace('-', '−')}</span>
    </button>
  )
}
