import { answer, api } from '../api/client'
import type { Channel } from '../api/types'
import { barAt } from '../document/time'
import { change } from '../session/changes'
import { catchUp } from '../session/live'
import { selectedChannel } from '../session/selected'
import { CLICK, tellReady, tellRing, theEngine } from '../session/sound'
import { notice, projectId, refused, session, setSession, theProject, useSession } from '../session/store'
import { locate, togglePlay } from '../session/transport'
import { setView, useView, view } from '../session/view'
import { HEAR_OFF } from './hearing'
import { closeOwn, LEAD, onLead, ownDelay, tendOwn } from './own'
import { recover } from './recover'

/* Recording: rows are made ready in this window; what arrives there is taken down by the engine, and lands as takes. */

/** How much of the song is heard before a range that is recorded, in bars. */
const PREROLL = 1

/** What a row is recorded from, in words. */
export function inputName(id: string | undefined, device = view().inputDevice): string {
  if (!id) return 'nothing'
  if (id === 'own') return device === LEAD ? 'long lead' : 'own input'
  return session().inputs.find((k) => k.id === id)?.name ?? id
}

/** Chooses what a row is recorded from; it is ready at once, or no longer. The own input may be the lead that stands in for
    it. */
export async function recordFrom(c: Channel, input: string, lead = false) {
  if (session().recording) return notice('It is being recorded: stop first.', 'refused')
  if (input === 'own' && lead !== onLead()) setView({ inputDevice: lead ? LEAD : '' })
  const of = input ? `Record ${c.name} from ${inputName(input)}` : `Record ${c.name} from nothing`
  const set = { type: 'channel.set' as const, do: { id: c.id, records: input } }
  if (input !== c.records && !(await change(of, set))) return
  setReady(c, false) // how it is heard is another thing with another input
  setReady({ ...c, records: input }, input !== '')
}

/** Makes a row ready to be recorded in this window, or no longer. */
export function setReady(c: Channel, on: boolean) {
  if (session().recording) return notice('It is being recorded: stop first.', 'refused')
  const others = Object.entries(session().ready).filter(([id]) => id !== c.id)
  // a microphone beside loudspeakers would howl
  const hear = c.records === 'own' ? HEAR_OFF : session().hearLevel
  const own = on ? [[c.id, session().ready[c.id] ?? hear] as const] : []
  setSession({ ready: Object.fromEntries([...others, ...own]) })
  tellReady()
  void tendOwn()
}

/** Makes the row ready, or no longer; where it is recorded from nothing yet, it is asked from what. */
export function toggleReady(c: Channel) {
  if (c.kind !== 'track') return notice('Only tracks are recorded on.', 'refused')
  if (!c.records)
    return notice(`${c.name} is recorded from nothing: choose its input on the bench.`, 'refused')
  setReady(c, !(c.id in session().ready))
}

/** How late one hears oneself through the chain, in ms: the ring and the output. */
export const lateBy = () => Math.round(view().ring + (theEngine()?.latency ?? 0) * 1000)

/** Works so far ahead of the ears, in ms: the less, the sooner one hears oneself, and the sooner the sound breaks off. */
export function setRing(ring: number) {
  setView({ ring })
  tellRing()
}

export function setClick(click: boolean) {
  setView({ click })
  theEngine()?.click(click, CLICK)
}

/** Begins to record, or ends it while the song goes on. */
export const toggleRecord = () => (session().recording ? endRecording() : record())

async function record() {
  const p = theProject()
  const engine = theEngine()
  if (!p || !engine) return
  const rows = rowsToRecord()
  if (!rows.length) {
    notice(
      'No row is ready to be recorded. Select a track, choose on the bench what it is recorded from, and press Record again.',
      'refused',
    )
    return
  }
  const { piece, aside, beside, countIn, playing } = view()
  const range = piece?.rows.some((r) => rows.includes(r)) ? { from: piece.from, to: piece.to } : null
  // what came before is recorded too, and can be drawn out of the clip
  const from = playing ? Math.round(engine.heard()?.song ?? 0) : 0
  try {
    const { id } = await answer(
      api.POST('/api/projects/{id}/recordings', {
        params: { path: { id: p.id } },
        body: {
          rows: rows.map((id) => ({ id, delay: delayOf(id, p.sampleRate) })),
          aside,
          beside,
          ...(range ?? { from }),
        },
      }),
    )
    setSession({ recording: { id, rows, overviews: {}, gone: [], ending: false } })
    tellReady()
    engine.record(id, p.id, rows)
    if (playing) return
    if (range) locate(barsBefore(range.from, PREROLL))
    engine.countIn(countIn)
    await togglePlay()
  } catch (e) {
    setSession({ recording: null })
    refused(e)
  }
}

/** What is taken off what arrives at a row, in frames: stand-ins are exact. */
const delayOf = (row: string, rate: number) =>
  inputOf(theProject(), row) === 'own' ? Math.round(ownDelay() * rate) : 0

/** The rows that are ready; without any the selected one, or the only one that has an input. */
function rowsToRecord(): string[] {
  const all = (theProject()?.channels ?? []).filter((c) => c.records)
  const ready = all.filter((c) => c.id in session().ready)
  if (ready.length) return ready.map((c) => c.id)
  const selected = all.find((c) => c.id === selectedChannel()?.id)
  const one = selected ?? (all.length === 1 ? all[0] : undefined)
  if (one) setReady(one, true)
  return one ? [one.id] : []
}

/** So many bars before a frame. */
function barsBefore(frame: number, bars: number): number {
  const t = session().timeline
  return t ? t.bars[Math.max(0, barAt(t, frame) - bars)]!.frame : frame
}

/** Ends what is recorded: it lands where it was played. */
export async function endRecording() {
  const r = session().recording
  const engine = theEngine()
  if (!r || r.ending || !engine) return
  const to = Math.round(engine.heard()?.song ?? 0)
  setSession({ recording: { ...r, ending: true } })
  const project = projectId()
  try {
    if (await engine.endRecord()) {
      const { takes } = await answer(
        api.POST('/api/recordings/{recording}/end', {
          params: { path: { recording: r.id } },
          body: { to },
        }),
      )
      if (projectId() === project) await landed(takes)
    } else await recover(r.id)
  } catch (e) {
    refused(e)
  } finally {
    if (projectId() === project) setSession({ recording: null, unsafe: { seconds: 0, trouble: '' } })
  }
}

/** Shows the takes of what has landed last, once the document has them. */
async function landed(takes: string[]) {
  const id = takes.at(-1)
  if (!id) return notice('Nothing was recorded.')
  const find = () => theProject()?.takes?.find((t) => t.id === id)
  if (!find()) await catchUp()
  const take = find()
  if (!take) return // somebody has undone it already
  const last = take.runs.at(-1)!
  setView({
    channel: take.row,
    stage: '',
    clips: [],
    piece: null,
    dialog: { kind: 'takes', row: take.row, from: take.runs[0]!.song, to: last.song + last.frames },
  })
}

// the song stops, by hand or by itself: then nothing more is recorded
useView.subscribe((v, before) => {
  if (before.playing && !v.playing && session().recording) void endRecording()
})

// what a row is recorded from may be changed by somebody else, the row may go, or the project may be left
useSession.subscribe((s, before) => {
  if (s.project === before.project) return
  if (!s.project) return closeOwn()
  const ids = Object.keys(s.ready)
  if (!ids.some((id) => inputOf(s.project, id) !== inputOf(before.project, id))) return
  const still = Object.entries(s.ready).filter(([id]) => inputOf(s.project, id))
  setSession({ ready: Object.fromEntries(still) })
  tellReady()
  void tendOwn()
})

const inputOf = (p: { channels: Channel[] } | null, id: string) =>
  p?.channels.find((c) => c.id === id)?.records
