import type { Timeline } from '../api/types'
import { setView, type Tide, useView } from '../session/view'
import { HeadGrip } from './HeadGrip'
import { Time } from './RulerTime'
import { STRIP } from './RowOut'

const tides: Tide[] = ['low', 'mid', 'high']

/** Sections and bars; a click sets the playhead, a drag sets a range. At high tide there are column heads instead. */
export function Ruler({ timeline, width }: { timeline: Timeline | null; width: number }) {
  const tide = useView((v) => v.tide)
  const head = useView((v) => v.headWidth)
  const loop = useView((v) => v.loop)
  const looping = useView((v) => v.looping)
  return (
    <div
      className="flex shrink-0"
      style={{ height: tide === 'high' ? 30 : 49, borderBottom: '1px solid var(--hair)' }}
    >
      <div
        className="relative flex shrink-0 items-center gap-1 pl-3"
        style={{ width: head, borderRight: '1px solid var(--hair)' }}
      >
        <span className="soft text-small">Tide</span>
        <span className="join">
          {tides.map((t) => (
            <button
              key={t}
              className={`join-item btn btn-xs px-1 font-normal ${tide === t ? 'btn-primary' : 'btn-outline'}`}
              style={{ borderColor: 'var(--soft)' }}
              aria-pressed={tide === t}
              onClick={() => setView({ tide: t })}
            >
              {t}
            </button>
          ))}
        </span>
        <HeadGrip />
      </div>
      {tide === 'high' ? (
        <Heads />
      ) : (
        timeline && <Time timeline={timeline} width={width} loop={looping ? loop : null} mark={loop} />
      )}
    </div>
  )
}

function Heads() {
  return (
    <div className="water-label flex flex-1 items-center text-small">
      <span className="flex-1 pl-3">stages, in order</span>
      <span className="flex gap-3 pr-3" style={{ width: STRIP }}>
        <span className="w-[148px] pl-1">level</span>
        <span className="w-[148px]">sends</span>
        <span className="w-[76px] pl-1">out</span>
      </span>
    </div>
  )
}
