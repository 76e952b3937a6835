import { type KeyboardEvent, type PointerEvent, type WheelEvent, useRef } from 'react'
import type { EffectInfo, Param, Picture, Stage } from '../api/types'
import { round, step } from '../controls/format'
import { moveTogether } from '../live/selection'
import { useSession } from '../live/session'
import { usePicture } from '../live/picture'
import { LiveFigures } from './LiveFigures'
import { LivePoint, ReductionHistory } from './LivePoint'
import { Spectrum } from './Spectrum'
import { type Frame, frameOf } from './frame'

type Handle = NonNullable<Picture['handles']>[number]
const W = 220
const H = 196

/** A stage's picture: curves, bars and handles as Go gave them; handles are dragged or moved by keys. */
export function PictureView({
  stage,
  effect,
  onGroup,
  watched,
  hint,
}: {
  stage: Stage
  effect: EffectInfo
  onGroup: (group: string) => void
  /** Whether the live spectrum is that of this stage. */
  watched: boolean
  /** What the control under the hand does; it is said in place of what the picture shows. */
  hint: string
}) {
  const p = usePicture(stage)
  if (!p)
    return (
      <div
        className="border"
        style={{ width: W, height: H, borderColor: 'var(--deep)', background: 'var(--shoal-1)' }}
      />
    )
  const f = frameOf(p, W, H)
  return (
    <div>
      <svg
        width={W}
        height={H}
        viewBox={`0 0 ${W} ${H}`}
        role="group"
        aria-label={p.says}
        style={{ background: 'var(--shoal-1)', border: '1px solid var(--deep)' }}
      >
        <Grid p={p} f={f} />
        {p.spectrum && watched && <Spectrum stage={stage.id} width={W} height={H} />}
        {p.curves.map((c) => (
          <g key={c.name}>
            {c.fill && <path d={f.area(c.x, c.y)} fill="var(--shoal-3)" opacity={0.55} />}
            <path
              d={f.path(c.x, c.y)}
              fill="none"
              stroke={c.role === 'main' ? 'var(--ink)' : 'var(--soft)'}
              strokeWidth={c.role === 'main' ? 2 : 1}
              strokeDasharray={c.role === 'ghost' ? '2 3' : undefined}
              opacity={c.role === 'part' ? 0.7 : 1}
            />
          </g>
        ))}
        {p.bars?.map((b, i) => (
          <line
            key={i}
            x1={f.x(b.x) + b.side * 2}
            x2={f.x(b.x) + b.side * 2}
            y1={f.floor}
            y2={f.y(b.y)}
            stroke={b.side > 0 ? 'var(--ink)' : 'var(--deep)'}
            strokeWidth={3}
          />
        ))}
        {p.live && !p.live.hidden && <LivePoint stage={stage.id} live={p.live} frame={f} />}
        {p.handles?.map((h) => (
          <HandlePoint
            key={h.label}
            handle={h}
            frame={f}
            stage={stage}
            effect={effect}
            onGrab={() => onGroup(effect.params.find((x) => x.name === (h.paramX || h.paramY))?.group ?? '')}
          />
        ))}
      </svg>
      <p className="soft mt-1 line-clamp-2 text-[11px] leading-[13px]" title={p.says} style={{ width: W }}>
        {hint || p.says}
      </p>
      {p.live ? (
        <Reduction stage={stage.id} index={p.live.reduction} />
      ) : (
        (effect.live ?? []).length > 0 && <LiveFigures stage={stage.id} names={effect.live ?? []} />
      )}
    </div>
  )
}

function Grid({ p, f }: { p: Picture; f: Frame }) {
  const short = (v: number) => (p.x.unit === 'Hz' && v >= 1000 ? `${v / 1000}k` : String(v).replace('-', '−'))
  return (
    <g stroke="var(--shoal-3)" strokeWidth={0.8} fontSize={9}>
      {p.x.ticks.map((t, i) => (
        <g key={`x${t}`}>
          <line x1={f.x(t)} x2={f.x(t)} y1={0} y2={H} />
          {(p.x.log ? [100, 1000, 10000].includes(t) : p.x.ticks.length < 8 || i % 2 === 0) && (
            <text className="figure" x={f.x(t) + 2} y={H - 3} fill="var(--soft)" stroke="none">
              {short(t)}
            </text>
          )}
        </g>
      ))}
      {p.y.ticks.map((t) => (
        <g key={`y${t}`}>
          <line x1={0} x2={W} y1={f.y(t)} y2={f.y(t)} />
          <text className="figure" x={2} y={f.y(t) - 2} fill="var(--soft)" stroke="none">
            {String(Math.round(t * 100) / 100).replace('-', '−')}
          </text>
        </g>
      ))}
      <text
        x={W - 4}
        y={10}
        textAnchor="end"
        fill="var(--soft)"
        stroke="none"
        fontSize={10}
        fontStyle="italic"
      >
        {p.y.unit ? `${p.y.label}, ${p.y.unit}` : p.y.label}
      </text>
    </g>
  )
}

function HandlePoint({
  handle,
  frame,
  stage,
  effect,
  onGrab,
}: {
  handle: Handle
  frame: Frame
  stage: Stage
  effect: EffectInfo
  onGrab: () => void
}) {
  const held = useRef<{ x: number; y: number } | null>(null)
  const moving = useSession((s) => s.moving)
  const param = (n?: string): Param | undefined => effect.params.find((p) => p.name === n)
  const px = param(handle.paramX)
  const py = param(handle.paramY)
  const pz = param(handle.paramZ)
  const now = (p: Param) => moving[`${stage.id} ${p.name}`] ?? stage.params[p.name] ?? p.default
  const set = (p: Param, v: number, rest = false) =>
    moveTogether(
      stage.id,
      p.name,
      round({ ...p, digits: p.digits + 1 }, v),
      `${p.label} of ${effect.name}`,
      rest,
    )
  const wake = () => {
    const on = effect.params.find((p) => p.group && p.group === px?.group && p.taper === 'switch')
    if (on && handle.quiet) set(on, 1, true)
  }
  const drag = (e: PointerEvent) => {
    const h = held.current
    if (!h) return
    const fine = e.shiftKey ? 0.1 : 1
    h.x += e.movementX * fine
    h.y += e.movementY * fine
    if (px) set(px, frame.xAt(h.x) / (handle.scaleX || 1))
    // a handle on a curve moves its parameter by as much as the hand moves on the axis
    if (py) set(py, now(py) - (e.movementY * fine * (frame.yMax - frame.yMin)) / H)
  }
  const key = (e: KeyboardEvent) => {
    const by = e.shiftKey ? 0.1 : 1
    const moves: Record<string, [Param | undefined, number]> = {
      ArrowRight: [px, by],
      ArrowLeft: [px, -by],
      ArrowUp: [py, by],
      ArrowDown: [py, -by],
      PageUp: [pz, by],
      PageDown: [pz, -by],
    }
    const m = moves[e.key]
    if (!m?.[0]) return
    e.preventDefault()
    e.stopPropagation()
    wake()
    set(m[0], step(m[0], now(m[0]), m[1]))
  }
  const wheel = (e: WheelEvent) => pz && set(pz, step(pz, now(pz), e.deltaY < 0 ? 1 : -1))
  const x = Math.min(Math.max(frame.x(Math.max(handle.x, frame.xMin)), 8), W - 8)
  const y = Math.min(Math.max(frame.y(handle.y), 6), H - 6)
  const shown = [px, py, pz]
    .flatMap((p) => (p ? [`${p.label} ${Math.round(now(p) * 100) / 100} ${p.unit}`] : []))
    .join(', ')
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${handle.label} in the picture`}
      aria-valuenow={px ? now(px) : py ? now(py) : 0}
      aria-valuetext={shown}
      className="cursor-move touch-none"
      opacity={handle.quiet ? 0.45 : 1}
      onFocus={onGrab}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId)
        held.current = { x, y }
        onGrab()
        wake()
      }}
      onPointerMove={drag}
      onPointerUp={() => (held.current = null)}
      onKeyDown={key}
      onWheel={wheel}
    >
      <title>{`${handle.label}: ${shown}${pz ? '. Wheel or Page keys: ' + pz.label : ''}`}</title>
      <circle cx={x} cy={y} r={8} fill="var(--card)" stroke="var(--deep)" strokeWidth={1.6} />
      <text x={x} y={y + 3.5} textAnchor="middle" fontSize={10} fontWeight={700} fill="var(--ink)">
        {handle.label.slice(0, 1)}
      </text>
    </g>
  )
}

function Reduction({ stage, index }: { stage: string; index: number }) {
  return (
    <div className="mt-1 flex items-end gap-2">
      <span className="soft text-[11px] whitespace-nowrap">reduction, last 4 s</span>
      <ReductionHistory stage={stage} index={index} />
    </div>
  )
}
