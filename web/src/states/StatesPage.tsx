import { type CSSProperties } from 'react'
import { Lamp } from '../board/Lamp'
import { Pick, Toggle } from '../controls/Pick'
import { Scale } from '../controls/Scale'
import { Shape } from '../soundings/Diamond'
import { Part } from './Part'
import { level, scales } from './states'
import { TimeStates } from './TimeStates'

/* For whoever works on the page: every control in every state, in both themes. Only in development. */

const nothing = () => undefined

const buttons: [string, Record<string, unknown>][] = [
  ['as it is', {}],
  ['pressed', { 'aria-pressed': true }],
  ['off', { disabled: true }],
  ['worked on', { 'aria-busy': true }],
]

const kinds = ['btn-outline', 'btn-primary', 'btn-secondary', 'btn-ghost']

export default function StatesPage() {
  return (
    <main className="grid h-full grid-cols-2 overflow-auto">
      {['day', 'night'].map((theme) => (
        <div
          key={theme}
          data-theme={theme}
          className="flex flex-col gap-4 p-5"
          style={{ background: 'var(--paper-2)', color: 'var(--ink)' }}
        >
          <h1 className="text-head font-bold">Every state, {theme} chart</h1>
          <p className="soft text-label">
            Move the pointer over a control for hover, go along with Tab for the focus, hold it for pressed.
          </p>
          <Part title="Scales">
            <div className="grid grid-cols-2 gap-x-5 gap-y-2">
              {scales.map(([name, state]) => (
                <Scale key={name} param={level} value={-12} onMove={nothing} label={name} {...state} />
              ))}
            </div>
          </Part>
          <Part title="Buttons">
            {kinds.map((kind) => (
              <span key={kind} className="flex gap-1.5">
                {buttons.map(([name, state]) => (
                  <button key={name} className={`btn btn-xs font-normal ${kind}`} {...state}>
                    {name}
                  </button>
                ))}
              </span>
            ))}
          </Part>
          <Part title="Choices, switches, lamps">
            <div className="grid grid-cols-2 gap-x-5">
              <Pick
                label="Choice"
                says=""
                value={0}
                choices={[{ value: 0, text: 'bell' }]}
                onPick={nothing}
              />
              <Toggle label="Switch, on" says="" on onSet={nothing} />
              <Toggle label="Switch, off" says="" on={false} onSet={nothing} />
              <span className="flex gap-1">
                <Lamp on={false} label="Lamp, out" text="M" onClick={nothing} />
                <Lamp on label="Lamp, lit" text="M" onClick={nothing} />
              </span>
            </div>
          </Part>
          <Part title="Stages and sends">
            <Card name="as it is" />
            <Card
              name="selected"
              style={{ borderColor: 'var(--ink)', boxShadow: '0 0 0 1.5px var(--ink)' }}
            />
            <Card
              name="with others"
              style={{ background: 'var(--shoal-2)', boxShadow: '0 0 0 1.5px var(--deep)' }}
            />
            <Card name="bypassed" struck style={{ background: 'transparent', borderStyle: 'dashed' }} />
            <Card name="broken" style={{ borderColor: 'var(--loss)' }} />
            <Card name="traced" style={{ outline: '2px solid var(--ink)' }} />
          </Part>
          <TimeStates />
          <Part title="Soundings">
            {(['note', 'caution', 'broken'] as const).map((w) => (
              <span key={w} className="flex items-center gap-1.5 text-label">
                <Shape weight={w} /> {w}
              </span>
            ))}
          </Part>
        </div>
      ))}
    </main>
  )
}

const Card = (p: { name: string; struck?: boolean; style?: CSSProperties }) => (
  <button
    className={`flex h-9 items-center rounded-[4px] border px-2.5 text-label font-semibold ${p.struck ? 'struck soft' : ''}`}
    style={{ background: 'var(--card)', borderColor: 'var(--deep)', ...p.style }}
  >
    {p.name}
  </button>
)
