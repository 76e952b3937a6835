import type { EffectInfo, Stage } from '../api/types'
import { HandlePoint, type Pictured } from './HandlePoint'
import { KeyMark } from './KeyMark'
import { LiveFigures } from './LiveFigures'
import { LivePoint, ReductionHistory } from './LivePoint'
import { PictureGrid } from './PictureGrid'
import { Spectrum } from './Spectrum'
import { frameOf } from './frame'
import { useStagePicture } from './picture'

/** A stage's picture: curves, bars and handles as Go gave them; handles are dragged or moved by keys. */
export function PictureView({
  stage,
  effect,
  onGroup,
  watched,
  hint,
  width: W,
  height,
}: {
  stage: Stage
  effect: EffectInfo
  onGroup: (group: string) => void
  /** Whether the live spectrum is that of this stage. */
  watched: boolean
  /** What the control under the hand does; it is said in place of what the picture shows. */
  hint: string
  /** The room it has, in pixels, with what is said and measured below it. */
  width: number
  height: number
}) {
  const p = useStagePicture(stage)
  const H = height - (p?.live || effect.live?.length ? 22 : 0)
  if (!p)
    return (
      <div
        className="border"
        style={{ width: W, height: H, borderColor: 'var(--deep)', background: 'var(--shoal-1)' }}
      />
    )
  const f = frameOf(p, W, H)
  const of: Pictured = {
    id: stage.id,
    name: effect.name,
    params: effect.params,
    value: (x) => stage.params[x.name] ?? x.default,
  }
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
        <PictureGrid p={p} f={f} w={W} h={H} />
        {p.spectrum && watched && <Spectrum stage={stage.id} width={W} height={H} />}
        {p.curves.map((c, i) => (
          <g key={`${c.name} ${i}`}>
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
        {stage.key && <KeyMark stage={stage.id} tap={stage.key} live={p.live} frame={f} height={H} />}
        {p.live && !p.live.hidden && <LivePoint stage={stage.id} live={p.live} frame={f} />}
        {p.handles?.map((h) => (
          <HandlePoint
            key={h.label}
            handle={h}
            frame={f}
            of={of}
            onGrab={() => onGroup(effect.params.find((x) => x.name === (h.paramX || h.paramY))?.group ?? '')}
          />
        ))}
      </svg>
      <p
        className="soft mt-1 line-clamp-2 h-[28px] text-small leading-[14px]"
        title={p.says}
        style={{ width: W }}
      >
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

function Reduction({ stage, index }: { stage: string; index: number }) {
  return (
    <div className="flex h-[22px] items-center gap-2">
      <span className="soft text-small whitespace-nowrap">last 4 s</span>
      <ReductionHistory stage={stage} index={index} />
    </div>
  )
}
