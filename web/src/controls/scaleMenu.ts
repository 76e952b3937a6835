import { create } from 'zustand'
import type { Param } from '../api/types'

/** A scale whose menu is open: what can be done to it from there. */
export type ScaleAt = {
  param: Param
  value: number
  focus: () => void
  set: (v: number) => void
  type: () => void
  line?: () => void
  moves?: () => void
}

/** There are hundreds of scales, and one menu for them all. */
export const useScaleAt = create<{ at: ScaleAt | null }>(() => ({ at: null }))
