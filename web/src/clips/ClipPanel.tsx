import type { Channel, Clip } from '../api/types'
import { PanelHead } from '../bench/PanelHead'
import { NameField } from '../controls/NameField'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import * as actions from './actions'
import { ClipMenu } from './ClipMenu'
import { ClipPicks } from './ClipPicks'
import { ClipScale } from './ClipScale'
import { Edges } from './Edges'
import { LevelOfClips } from './LevelOfClips'

/** The selected clips on the bench: what they are, their level, their fades, and what can be done with them. */
export function ClipPanel({ clips, channel }: { clips: Clip[]; channel: Channel }) {
  const strip = useSession((s) => s.strip)
  const rate = useSession((s) => s.project!.sampleRate)
  const renaming = useView((v) => v.renaming === clips[0]?.id)
  const first = clips[0]
  if (!first || !strip) return null
  const title = clips.length > 1 ? `${clips.length} clips` : first.name
  const ms = (frames: number) => (frames / rate) * 1000
  const frames = (v: number) => (v <= strip.clipFade.min ? 0 : Math.round((v / 1000) * rate))
  const fade = (which: 'fadeIn' | 'fadeOut', v: number) =>
    actions.set(which === 'fadeIn' ? 'Fade in' : 'Fade out', clips, (c) => ({
      [which]: Math.min(frames(v), c.frames - (which === 'fadeIn' ? c.fadeOut : c.fadeIn)),
    }))
  return (
    <div
      className="flex h-full w-[552px] flex-col px-3.5 pt-2 pb-1.5"
      data-panel={first.id}
      role="group"
      aria-label={`${title} on ${channel.name}`}
    >
      <PanelHead title={renaming ? '' : title} of={<About clips={clips} channel={channel} />}>
        {renaming && (
          <NameField
            name={first.name}
            label="Name of the clip"
            onName={(name) => void actions.set('Rename', [first], () => ({ name }))}
          />
        )}
        <button
          className="btn btn-xs btn-outline font-normal"
          title="At the playhead ( I )"
          onClick={() => void actions.cut()}
        >
          Cut
        </button>
        <button
          className={`btn btn-xs font-normal ${first.mute ? 'btn-primary' : 'btn-outline'}`}
          aria-pressed={first.mute ?? false}
          title="Mute it ( Q )"
          onClick={() => void actions.mute()}
        >
          mute
        </button>
        <ClipMenu clips={clips} channel={channel} title={title} />
      </PanelHead>
      <div className="grid min-h-0 flex-1 grid-cols-3 content-start gap-x-5 gap-y-1 overflow-y-auto">
        <ClipScale
          param={strip.clipGain}
          value={first.gain}
          of={title}
          onSet={(v) => {
            const by = v - first.gain // several keep their differences
            void actions.set('Gain of', clips, (c) => ({ gain: Math.min(36, Math.max(-120, c.gain + by)) }))
          }}
        />
        <ClipScale
          param={{ ...strip.clipFade, label: 'Fade in' }}
          value={Math.max(strip.clipFade.min, ms(first.fadeIn))}
          of={title}
          onSet={(v) => void fade('fadeIn', v)}
          onNote={(n) => actions.fadeFor(clips, 'begin', n)}
        />
        <ClipScale
          param={{ ...strip.clipFade, label: 'Fade out' }}
          value={Math.max(strip.clipFade.min, ms(first.fadeOut))}
          of={title}
          onSet={(v) => void fade('fadeOut', v)}
          onNote={(n) => actions.fadeFor(clips, 'end', n)}
        />
        <ClipPicks clips={clips} channel={channel} />
        <LevelOfClips clips={clips} />
        {clips.length === 1 && <Edges clip={first} />}
      </div>
    </div>
  )
}

/** Where it comes from. */
function About({ clips, channel }: { clips: Clip[]; channel: Channel }) {
  const project = useSession((s) => s.project)!
  const first = clips[0]!
  const seconds = (f: number) => (f / project.sampleRate).toFixed(2)
  const source = project.audio.find((a) => a.hash === first.audio)
  if (clips.length > 1) return <>{`on ${channel.name} and where else they lie`}</>
  return (
    <>
      {(first.made || channel.printOf) && (
        <>
          <button
            className="water-label underline decoration-dotted"
            title="Where it comes from ( T )"
            onClick={() => actions.traceBack(clips)}
          >
            {first.made && !first.enters ? 'made permanent' : 'a print'}
          </button>
          {' · '}
        </>
      )}
      {`${seconds(first.frames)} s on ${channel.name} · `}
      {`${seconds(first.offset)} to ${seconds(first.offset + first.frames)} s of ${source?.name ?? '?'}`}
    </>
  )
}
