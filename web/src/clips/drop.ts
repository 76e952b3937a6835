import type { DragEvent } from 'react'
import { carriedEffect, carriedPreset } from '../board/carry'
import { drop } from '../presets/actions'
import { pick } from './chosen'
import { treat } from './treatment'

/** What lets a clip take an effect or a preset that is dropped on it: it treats that piece only. */
export const takesEffect = (clip: string, row: string) => ({
  onDragOver: (e: DragEvent) => (carriedEffect() || carriedPreset()) && e.preventDefault(),
  onDrop: (e: DragEvent) => {
    const effect = carriedEffect()
    const preset = carriedPreset()
    if (!effect && !preset) return
    e.preventDefault()
    e.stopPropagation()
    pick(clip, row, false)
    if (effect) void treat([clip], effect)
    if (preset) void drop(preset, clip)
  },
})
