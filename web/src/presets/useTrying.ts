import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import type { Preset } from '../api/types'
import { notice, refused } from '../session/store'
import { setView } from '../session/view'
import * as presets from './actions'

export type PresetOf = 'stage' | 'chain' | 'fork' | 'channel'

export const shutList = () => setView({ dialog: null })

/** What can be done with the presets of a list. What is tried ends when the list goes. */
export function useTrying(of: PresetOf, target: string, choose: (id: string) => void) {
  const client = useQueryClient()
  useEffect(() => () => void presets.endTrying(), [])
  const again = () => client.invalidateQueries({ queryKey: ['presets'] })
  return {
    again,
    tryOut: (p: Preset) => {
      choose(p.id)
      presets.tryOut(p.id, target).catch(refused)
    },
    take: async (p: Preset) => {
      try {
        if (await presets.takeIt(p, target)) shutList()
      } catch (e) {
        refused(e)
      }
    },
    bin: async (p: Preset) => {
      try {
        await presets.bin(p)
        await again()
        notice(`${p.name} is deleted.`, 'info', {
          text: 'Take it back',
          run: () => void presets.restore(p).then(again),
        })
      } catch (e) {
        refused(e)
      }
    },
    keep: async (name: string) => {
      try {
        await presets.save({ name, says: '', tags: [] }, of, target)
        shutList()
        await again()
      } catch (e) {
        refused(e)
      }
    },
  }
}
