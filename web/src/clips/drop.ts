import type { DragEvent } from 'react'
import { carriedEffect } from '../board/carry'
import { pick } from './chosen'
import { treat } from './treatment'

/** What lets a clip take an effect that is dropped on it: it treats that piece only. */
export const takesEffect = (clip: string, row: string) => ({
  onDragOver: (e: DragEvent) => carriedEffect() && e.preventDefault(),
  onDrop: (e: DragEvent) => {
    const effect = carriedEffect()
    if (!effect) return
    e.preventDefault()
    e.stopPropagation()
    pick(clip, row, false)
    void treat([clip], effect)
  },
})
