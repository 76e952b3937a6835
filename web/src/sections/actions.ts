import type { Channel } from '../api/types'
import { newId } from '../document/ids'
import { change } from '../session/changes'
import { theEngine } from '../session/sound'
import { setView } from '../session/view'
import { along } from './along'

/* Sections and tempo: what is to be moved, and where, is worked out in Go. */

type Named = { id: string; name: string }

const playhead = () => Math.round(theEngine()?.heard()?.song ?? 0)

/** Begins one at the bar nearest to a frame, or to the playhead; it is to be named at once. */
export async function begin(at = playhead()) {
  const id = newId()
  const done = await change('Begin a section', {
    type: 'section.begin',
    do: { id, name: 'Section', at: Math.round(at) },
  })
  if (done) setView({ renaming: id })
}

export const rename = (s: Named, name: string, all: { id: string; name: string; tick: number }[]) =>
  change(`Rename ${s.name}`, {
    type: 'sections.set',
    do: { sections: all.map((x) => (x.id === s.id ? { ...x, name } : x)) },
  })

export const move = (s: Named, by: number) =>
  along((along) => {
    const where = by < 0 ? 'earlier' : 'later'
    void change(`Move ${s.name} ${where}`, { type: 'section.move', do: { id: s.id, by, along } })
  })

export const repeat = (s: Named) =>
  along((along) => {
    void change(`Repeat ${s.name}`, { type: 'section.repeat', do: { id: s.id, along } })
  })

export const remove = (s: Named) =>
  along((along) => {
    void change(`Remove ${s.name} with everything in it`, {
      type: 'section.remove',
      do: { id: s.id, all: true, along },
    })
  })

export const removeName = (s: Named) =>
  change(`Take the name ${s.name} off`, {
    type: 'section.remove',
    do: { id: s.id, all: false, along: false },
  })

export const cutClips = (c: Channel) =>
  change(`Cut the clips of ${c.name} where sections begin`, { type: 'clips.cut', do: { channel: c.id } })

export const putTempo = (t: { tick: number; bpm: number; ramp?: boolean }) =>
  change('Change the tempo', {
    type: 'tempo.put',
    do: { tick: t.tick, bpm: t.bpm, ramp: t.ramp ?? false },
  })

export const putTempoHere = (bpm: number) =>
  change('Another tempo from here', { type: 'tempo.put', do: { at: playhead(), bpm } })

export const removeTempo = (tick: number) =>
  change('Take a tempo away', { type: 'tempo.remove', do: { tick } })
