import { create } from 'zustand'

export type Tide = 'low' | 'mid' | 'high'
export type Range = { from: number; to: number; name: string }
export type Dialog =
  | { kind: 'effects'; owner: string; index: number; replace?: string }
  | { kind: 'print'; channel: string; target: 'track' | 'file' }
  | { kind: 'keys' }
  | { kind: 'logbook' }
  | null

/** What belongs to this window alone: never to the document. */
export type View = {
  channel: string
  stage: string
  tide: Tide
  rowHeight: number
  bench: boolean
  showHidden: boolean
  /** Frames per pixel; 0 fits the whole song. */
  zoom: number
  scroll: number
  loop: Range | null
  looping: boolean
  solo: string[]
  dialog: Dialog
  renaming: string
  playing: boolean
}

const stored = (): Partial<View> => {
  try {
    return JSON.parse(localStorage.getItem('shoal.view') ?? '{}') as Partial<View>
  } catch {
    return {}
  }
}

const s = stored()

export const useView = create<View>(() => ({
  channel: '',
  stage: '',
  tide: s.tide ?? 'mid',
  rowHeight: s.rowHeight ?? 63,
  bench: s.bench ?? true,
  showHidden: false,
  zoom: 0,
  scroll: 0,
  loop: null,
  looping: false,
  solo: [],
  dialog: null,
  renaming: '',
  playing: false,
}))

export const view = useView.getState
export const setView = useView.setState

useView.subscribe((v, before) => {
  if (v.tide !== before.tide || v.rowHeight !== before.rowHeight || v.bench !== before.bench) {
    localStorage.setItem(
      'shoal.view',
      JSON.stringify({ tide: v.tide, rowHeight: v.rowHeight, bench: v.bench }),
    )
  }
})
