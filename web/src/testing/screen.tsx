import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render } from '@testing-library/react'
import type { ReactNode } from 'react'
import type { Clip, EffectInfo, Param, Project, Stage, StripParams } from '../api/types'
import { empty, setSession } from '../session/store'
import { setView } from '../session/view'
import { document } from './server'

/* What a component needs around it: a window with a project open, and no server. */

export const param = (p: Partial<Param> = {}): Param => ({
  name: 'gain',
  label: 'Gain',
  unit: 'dB',
  says: 'How loud it is.',
  min: -24,
  max: 24,
  default: 0,
  taper: 'linear',
  step: 0.5,
  digits: 1,
  ...p,
})

export const effect = (id: string, more: Partial<EffectInfo> = {}): EffectInfo => ({
  id,
  version: 1,
  newest: 1,
  name: id[0]!.toUpperCase() + id.slice(1),
  family: 'Level',
  says: `What ${id} does.`,
  synonyms: [],
  params: [param()],
  plumbs: [{ param: 'gain' }, { param: 'mix' }],
  mix: 100,
  mixLaw: 'blend',
  keyed: false,
  ...more,
})

export const stage = (id: string, of: string, more: Partial<Stage> = {}): Stage => ({
  id,
  name: '',
  effect: of,
  version: 1,
  params: {},
  bypass: false,
  mix: 100,
  mixLaw: 'blend',
  actsOn: 'both',
  ringOut: false,
  mixLock: false,
  ...more,
})

/** A second of a sound of two, from a tenth of a second on. */
export const clip = (id: string, more: Partial<Clip> = {}): Clip => ({
  id,
  name: `Clip ${id}`,
  audio: 'x',
  follows: false,
  start: 0,
  offset: 4800,
  frames: 48000,
  gain: 0,
  fadeIn: 0,
  fadeOut: 0,
  exact: false,
  ...more,
})

/** Opens a project in this window. */
export function open(change: (p: Project) => void = () => undefined): Project {
  const project = document()
  change(project)
  const mix = param({ name: 'mix', label: 'Mix', unit: '%', min: 0, max: 100, default: 100 })
  setSession(
    {
      ...empty,
      project,
      revision: 1,
      effects: [effect('trim'), effect('reverb', { family: 'Space' })],
      strip: { fader: param(), pan: param(), send: param(), mix, moves: {} } as unknown as StripParams,
      me: { id: 'me', name: 'Ada' },
      timeline: {
        rate: 48000,
        end: 480000,
        shown: 480000,
        bars: [{ frame: 0, beats: 4, unit: 4, tempo: 100 }],
        sections: [{ id: 'ebb', name: 'Ebb', from: 0, to: 96000 }],
        clips: {},
        passages: [],
        tempo: [],
        overlaps: [],
        outline: { forks: {}, rows: {}, taps: {}, homes: {} },
      },
    },
    true,
  )
  setView({
    channel: '',
    stage: '',
    rows: [],
    together: [],
    dialog: null,
    loop: null,
    looping: false,
    trials: {},
    blind: null,
  })
  return project
}

class Observer {
  observe() {}
  disconnect() {}
  unobserve() {}
}

/** Draws something as the page does. */
export function draw(what: ReactNode) {
  cleanup()
  globalThis.ResizeObserver ??= Observer as never
  Element.prototype.scrollIntoView ??= () => undefined
  HTMLDialogElement.prototype.showModal ??= function (this: HTMLDialogElement) {
    this.open = true
  }
  HTMLDialogElement.prototype.close ??= function (this: HTMLDialogElement) {
    this.open = false
  }
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  return render(<QueryClientProvider client={client}>{what}</QueryClientProvider>)
}
