import { useRef } from 'react'
import { TideMeter } from '../controls/TideMeter'
import { minutes } from '../document/time'
import { Hold, useHeard } from '../session/meters'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'
import { setView } from '../session/view'

/** Writes a text where another stands: to write the same again would lay it out again. */
function put(el: HTMLElement, text: string) {
  if (el.textContent !== text) el.textContent = text
}

/** Where the song stands: section, bars and minutes of the frame that is heard. */
export function Place() {
  const timeline = useSession((s) => s.timeline)
  const section = useRef<HTMLDivElement>(null)
  const bars = useRef<HTMLDivElement>(null)
  const clock = useRef<HTMLDivElement>(null)
  useHeard((h) => {
    if (!timeline) return
    const s = timeline.sections.findLast((x) => x.from <= h.song)
    put(section.current!, s?.name ?? 'Bars')
    const [bar, beat, part] = h.spot
    put(bars.current!, `${bar}.${beat}.${String(part).padStart(2, '0')}`)
    put(clock.current!, minutes(h.song / timeline.rate))
  }, 'meter')
  return (
    <>
      <div className="min-w-[84px]">
        <div ref={section} className="soft truncate text-small">
          Bars
        </div>
        <div ref={bars} className="figure text-clock leading-[18px]" data-testid="bars">
          1.1.00
        </div>
      </div>
      <div className="min-w-[72px]">
        <div className="soft text-small">
          of {timeline ? minutes(timeline.end / timeline.rate).split('.')[0] : '–'}
        </div>
        <div ref={clock} className="figure text-clock leading-[18px]" data-testid="clock">
          0:00.00
        </div>
      </div>
    </>
  )
}

/** The main output: tide meter, loudness and true peak. */
export function MainLevel() {
  const main = useSession((s) => s.project?.channels.find((c) => c.kind === 'main'))
  const short = useRef<HTMLSpanElement>(null)
  const whole = useRef<HTMLSpanElement>(null)
  const peak = useRef<HTMLSpanElement>(null)
  const hold = useRef(new Hold(1500))
  const write = (db: number) => (db <= -119 ? '–' : db.toFixed(1).replace('-', '−'))
  useHeard((h) => {
    put(short.current!, write(h.short))
    put(whole.current!, write(h.integrated))
    const tp = hold.current.feed(h.truePeak)
    put(peak.current!, write(tp))
    peak.current!.style.color = tp > 0 ? 'var(--loss)' : ''
  }, 'figure')
  if (!main) return null
  return (
    <div className="flex items-center gap-2">
      <div className="w-[118px] max-[1259px]:hidden">
        <TideMeter point={`post ${main.id}`} tall />
        <div className="figure soft relative mt-0.5 h-3 text-small leading-3" aria-hidden>
          {[-48, -24, 0].map((db) => (
            <span
              key={db}
              className="absolute -translate-x-1/2"
              style={{ left: `${((db + 60) / 66) * 100}%` }}
            >
              {String(db).replace('-', '−')}
            </span>
          ))}
        </div>
      </div>
      <Reading of="LUFS" figure={short} />
      <button
        className="text-left max-[1259px]:hidden"
        title="Integrated loudness since it was last started; click to start again"
        onClick={() => theEngine()?.measureAgain()}
      >
        <Reading of="whole" figure={whole} />
      </button>
      <Reading of="dBTP" figure={peak} />
    </div>
  )
}

function Reading({ of, figure }: { of: string; figure: React.RefObject<HTMLSpanElement | null> }) {
  return (
    <div className="w-[46px]">
      <span ref={figure} className="figure block text-label">
        –
      </span>
      <span className="soft block text-small whitespace-nowrap">{of}</span>
    </div>
  )
}

/** How much of the machine's time the sound takes. */
export function EngineLoad() {
  const figure = useRef<HTMLSpanElement>(null)
  const last = useRef(0)
  useHeard((h) => {
    if (performance.now() - last.current < 500) return
    last.current = performance.now()
    const gaps = theEngine()?.underruns ?? 0
    put(figure.current!, `${Math.round(h.load * 100)} %`)
    figure.current!.title = gaps ? `${gaps} gaps heard since the page was opened` : 'No gaps so far'
  })
  return (
    <button
      className="text-left"
      aria-label="What the engine's time goes to"
      onClick={() => setView({ dialog: { kind: 'costs' } })}
    >
      <span className="soft block text-small">Engine</span>
      <span ref={figure} className="figure block text-label leading-[16px]" data-testid="load">
        –
      </span>
    </button>
  )
}
