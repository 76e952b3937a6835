import { useForkWords } from '../session/outline'
import type { Channel, Fork, ForkFigures, Path } from '../api/types'
import { ParamControl } from '../controls/ParamControl'
import { Pick, Toggle } from '../controls/Pick'
import { Handles } from '../moves/Handles'
import { useSession } from '../session/store'
import { ForkHead } from './ForkHead'
import { ForkPicture, useForkFigures } from './ForkPicture'
import { PathLine } from './PathLine'
import * as forks from './forks'
import { useHint } from './useHint'

/** A fork on the bench: what it does as a whole, its paths one below the other, and how it divides and joins. */
export function ForkPanel({ fork, path, channel }: { fork: Fork; path: Path | null; channel: Channel }) {
  const strip = useSession((s) => s.strip)
  const figures = useForkFigures(fork)
  const { hint, watch } = useHint()
  const { title } = useForkWords(fork)
  if (!strip) return null
  const name = title
  return (
    <div
      className="flex h-full flex-col px-3.5 pt-2.5 pb-2"
      data-panel={path?.id ?? fork.id}
      role="group"
      aria-label={`${name} on ${channel.name}`}
      {...watch}
    >
      <ForkHead fork={fork} path={path} channel={channel} />
      <div className="grid min-h-0 flex-1 grid-cols-[196px_minmax(0,1fr)] gap-3">
        <div>
          <ForkPicture fork={fork} path={path} figures={figures} />
          <Says fork={fork} figures={figures} hint={hint} />
        </div>
        <div className="flex min-h-0 flex-col gap-0.5 overflow-y-auto pr-1">
          {fork.paths.map((p) => (
            <PathLine
              key={p.id}
              path={p}
              channel={channel}
              selected={p.id === path?.id}
              part={figures?.each.find((e) => e.path === p.id)?.part}
            />
          ))}
          <div className="mt-1 flex flex-col gap-1 pt-1" style={{ borderTop: '1px solid var(--hair)' }}>
            {fork.crossovers.map((hz, i) => {
              const d = (fork.linear ? strip.linear : strip.crossovers)[i]!
              return <ParamControl key={d.name} owner={fork.id} param={d} value={hz} of={name} />
            })}
            {fork.kind === 'bands' && <Divides fork={fork} />}
            <ParamControl owner={fork.id} param={strip.trim} value={fork.trim} of={name} />
            <ParamControl owner={fork.id} param={strip.mix} value={fork.mix} of={name} />
            <Pick
              label="Mix law"
              says="Blend fades from the dry signal to what the paths make; add leaves the dry signal as it is."
              value={fork.mixLaw}
              choices={[
                { value: 'blend', text: 'blend' },
                { value: 'add', text: 'add' },
              ]}
              onPick={(mixLaw) => forks.setForkNode(fork, { mixLaw }, 'Change the mix law of')}
            />
            <Handles row={channel.id} />
          </div>
        </div>
      </div>
    </div>
  )
}

function Divides({ fork }: { fork: Fork }) {
  return (
    <>
      <Pick
        label="Slope"
        says="How steeply one band gives way to the next."
        value={fork.slope}
        choices={[
          { value: 24, text: '24 dB/oct' },
          { value: 48, text: '48 dB/oct' },
        ]}
        onPick={(slope) => forks.setFork(fork, { slope })}
      />
      <Toggle
        label="Linear phase"
        says="No phase is turned at the crossovers, but the fork is later by a tenth of a second, which all the rest waits for, and what is struck sounds a little before itself. A moved crossover is heard when the hand rests."
        on={fork.linear}
        onSet={(linear) => forks.setFork(fork, { linear })}
      />
    </>
  )
}

/** What the picture shows, in a line; where paths take each other away, that. */
function Says({ fork, figures, hint }: { fork: Fork; figures: ForkFigures | null; hint: string }) {
  const rate = useSession((s) => s.project!.sampleRate)
  if (!figures) return <p className="soft mt-1 text-small">Sending a test signal through a copy of it…</p>
  const late = figures.latency
    ? ` · ${((figures.latency / rate) * 1000).toFixed(1)} ms late, made up for`
    : ''
  const gain = `${figures.gain < 0 ? '−' : '+'}${Math.abs(figures.gain).toFixed(1)} dB`
  return (
    <>
      {figures.cancel > 3 ? (
        <p className="mt-1 text-small leading-[13px]" style={{ color: 'var(--caution)' }}>
          Paths cancel: {figures.cancel.toFixed(0)} dB are lost at {hertz(figures.at)}.
        </p>
      ) : (
        <p className="soft mt-1 text-small leading-[13px]">
          Thick: the whole, {gain}
          {late}
        </p>
      )}
      <p className="soft line-clamp-2 text-small leading-[13px]">
        {hint ||
          (figures.measured
            ? 'Measured with noise at −18 dBFS: something on a path is not linear.'
            : fork.kind === 'bands'
              ? 'Drag a crossover; Alt hears the band below it, Ctrl the one above.'
              : 'Thin: each path. Its part is of the power of all.')}
      </p>
    </>
  )
}

const hertz = (v: number) => (v < 1000 ? `${Math.round(v)} Hz` : `${(v / 1000).toFixed(1)} kHz`)
