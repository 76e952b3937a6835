import { LEAD_SECONDS } from '../engine/lead'
import type { Side } from '../engine/ring'
import { theEngine } from '../session/sound'
import { notice, session, setSession, theProject } from '../session/store'
import { setView, view } from '../session/view'
import { tellDirect } from './hearing'

/* The window's own input: a microphone, or what else its browser hears. Which device it is belongs to the window alone. */

let stream: MediaStream | null = null

/** The device that is none: a stand-in at the end of a long lead (engine/lead.ts). */
export const LEAD = 'lead'
export const onLead = () => view().inputDevice === LEAD

/** Opens the input that was chosen, and closes it when no row takes it any more. Permission is asked for when it is needed. */
export async function tendOwn() {
  const rows = ownRows()
  const engine = theEngine()
  const p = theProject()
  if (!engine || !p) return
  if (!rows.length) {
    if (stream) closeOwn()
    engine.own({})
    return
  }
  const sides = Object.fromEntries(rows.map((id) => [id, session().sides[id] ?? 'both']))
  try {
    if (onLead()) {
      if (stream) closeOwn()
      await engine.listenTo(null, p.sampleRate)
      return engine.own(sides, true)
    }
    if (!stream) await open()
    await engine.listenTo(stream, p.sampleRate)
    tellDirect()
    engine.own(sides)
    look ??= setInterval(lookAtLevel, 100)
  } catch (e) {
    closeOwn()
    engine.own({})
    setSession((s) => ({
      ready: Object.fromEntries(Object.entries(s.ready).filter(([id]) => !rows.includes(id))),
    }))
    notice(inWords(e), 'refused')
  }
}

const ownRows = () =>
  (theProject()?.channels ?? [])
    .filter((c) => c.records === 'own' && c.id in session().ready)
    .map((c) => c.id)

async function open() {
  const media = navigator.mediaDevices as MediaDevices | undefined
  if (!media) throw new Error('This browser lets no page hear an input.')
  const id = view().inputDevice
  stream = await media.getUserMedia({
    audio: {
      deviceId: id ? { exact: id } : undefined,
      channelCount: 2,
      echoCancellation: false,
      autoGainControl: false,
      noiseSuppression: false,
    },
  })
  const track = stream.getAudioTracks()[0]!
  track.onended = () => {
    notice(
      `${track.label || 'The input'} has gone: it was unplugged, or taken away from this page.`,
      'refused',
    )
    closeOwn()
  }
  // only now does the browser say what they are called
  const all = await media.enumerateDevices()
  setSession({
    devices: all.filter((d) => d.kind === 'audioinput').map((d) => ({ id: d.deviceId, name: d.label })),
    device: track.label,
  })
}

/** While the song stands the engine does not run: then the browser says how loud it is. */
function lookAtLevel() {
  if (view().playing) return
  const peak = theEngine()?.ownLevel ?? -120
  const arriving = Object.fromEntries(ownRows().map((id) => [id, { peak, held: peak }]))
  setSession((s) => ({ arriving: { ...s.arriving, ...arriving } }))
}

let look: ReturnType<typeof setInterval> | undefined

/** Closes it: no page hears an input any longer than it needs it. */
export function closeOwn() {
  clearInterval(look)
  look = undefined
  for (const t of stream?.getTracks() ?? []) t.stop()
  stream = null
  void theEngine()?.listenTo(null, 0)
  setSession({ device: '' })
}

/** Takes another device. */
export async function chooseDevice(id: string) {
  setView({ inputDevice: id })
  closeOwn()
  await tendOwn()
}

/** Takes both sides of it on a row, or one. */
export function chooseSide(row: string, side: Side) {
  setSession((s) => ({ sides: { ...s.sides, [row]: side } }))
  void tendOwn()
}

/** Measures by how much what is played arrives late: a click goes out and comes in. */
export async function measureDelay() {
  try {
    const seconds = await (theEngine()?.measureDelay() ??
      Promise.reject(new Error('There is no sound engine.')))
    const inputDelay = Math.round(seconds * 10000) / 10
    setView({ inputDelay })
    notice(`What is played arrives ${inputDelay} ms late: that is taken off.`)
  } catch (e) {
    notice(inWords(e), 'refused')
  }
}

/** By how much what is played arrives late, in seconds: what the browser says of its output and its input, or what was
    typed. */
export function ownDelay(): number {
  const typed = view().inputDelay
  if (typed >= 0) return typed / 1000
  if (onLead()) return LEAD_SECONDS
  const says = stream?.getAudioTracks()[0]?.getSettings() as { latency?: number } | undefined
  return (theEngine()?.latency ?? 0) + (says?.latency ?? 0)
}

function inWords(e: unknown): string {
  if (!(e instanceof DOMException)) return e instanceof Error ? e.message : String(e)
  switch (e.name) {
    case 'NotAllowedError':
      return 'This page may not hear your input: allow it beside the address, then make the row ready again.'
    case 'NotFoundError':
    case 'OverconstrainedError':
      return 'There is no such input here: plug it in, or choose another one.'
    case 'NotReadableError':
      return 'The input is there but cannot be read: another program may hold it.'
    default:
      return `The input cannot be opened: ${e.message}`
  }
}
