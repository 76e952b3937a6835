import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { answer, api } from '../api/client'
import type { Preset } from '../api/types'
import { Card } from '../controls/Card'
import { Toggle } from '../controls/Pick'
import { newest } from '../document/chain'
import { asReturn } from '../presets/actions'
import { select } from '../session/selected'
import { refused, useSession } from '../session/store'
import { setView } from '../session/view'
import { Existing } from './Existing'
import { makeReturn } from './gestures'
import { OnReturn } from './OnReturn'

/** Sends rows to a return that is there, or makes one with an effect on it, in one step. */
export function SendCard({ rows }: { rows: string[] }) {
  const project = useSession((s) => s.project)!
  const all = useSession((s) => s.effects)
  const effects = useMemo(() => newest(all), [all])
  const from = project.channels.filter((c) => rows.includes(c.id))
  const returns = project.channels.filter((c) => c.kind === 'return' && !rows.includes(c.id))
  const [name, setName] = useState('')
  const [effect, setEffect] = useState('reverb')
  const [loud, setLoud] = useState(false)
  const { data: presets = [] } = useQuery({
    queryKey: ['presets'],
    queryFn: () => answer(api.GET('/api/presets')),
  })
  const preset = effect.startsWith('preset ') ? effect.slice(7) : ''
  const spaces = effects.filter((x) => x.family === 'Space' || x.family === 'Time').map((x) => x.id)
  const kinds: [string, Preset[]][] = [
    ['Presets of whole rows', presets.filter((p) => p.kind === 'channel')],
    ['Presets of spaces and echoes', presets.filter((p) => p.kind === 'stage' && spaces.includes(p.effect))],
    ['Presets of chains', presets.filter((p) => p.kind === 'chain')],
  ]

  const done = () => setView({ dialog: null })
  const make = async (apart = false) => {
    const how = { ...(loud && { level: 0 }), ...(apart && { apart }) }
    const id = preset
      ? await asReturn(preset, rows, how).catch(refused)
      : await makeReturn(from, name, effect, how)
    done()
    if (id) {
      select(id)
      setView({ bench: true })
    }
  }
  return (
    <Card title={`Send ${from.length === 1 ? from[0]!.name : `${from.length} rows`} to`} width={440}>
      <form
        className="flex flex-col gap-2"
        onSubmit={(e) => {
          e.preventDefault()
          void make()
        }}
      >
        <div className="grid grid-cols-2 gap-2">
          <label className="text-small">
            A new return, named
            <input
              data-first
              className="input input-sm mt-1 w-full"
              placeholder={
                presets.find((p) => p.id === preset)?.name ??
                effects.find((x) => x.id === effect)?.name ??
                'Return'
              }
              disabled={preset !== ''}
              value={name}
              maxLength={80}
              onChange={(e) => setName(e.target.value)}
            />
          </label>
          <label className="text-small">
            on it, fully wet
            <OnReturn effects={effects} kinds={kinds} value={effect} onPick={setEffect} />
          </label>
        </div>
        <Toggle
          label="at 0 dB"
          says="The sends stand at 0 dB, not at a level that can just be heard."
          on={loud}
          onSet={setLoud}
        />
        <div className="flex gap-1.5">
          <button className="btn btn-sm btn-primary">
            {from.length > 1 ? 'Make it, with the sends' : 'Make the return and the send'}
          </button>
          {from.length > 1 && (
            <button
              type="button"
              className="btn btn-sm btn-outline font-normal"
              title="The sends are panned: the first row to the left, the last to the right."
              onClick={() => void make(true)}
            >
              Make it, sent from left to right
            </button>
          )}
        </div>
      </form>
      {returns.length > 0 && <Existing from={from} returns={returns} loud={loud} onDone={done} />}
    </Card>
  )
}
