import type { Channel } from '../api/types'
import { Menu } from '../controls/Menu'
import type { Item } from '../controls/MenuEntry'
import { useSession } from '../session/store'
import { setView, useViewOf } from '../session/view'
import { DelayForm } from './DelayForm'
import { chooseDevice, chooseSide, hearDirectly, measureDelay } from './own'
import {
  HEAR,
  HEAR_OFF,
  hearSelf,
  inputName,
  lateBy,
  recordFrom,
  setClick,
  setReady,
  setRing,
} from './recording'

/** What a track is recorded from, and how. */
export function RecordMenu({ channel }: { channel: Channel }) {
  const inputs = useSession((s) => s.inputs)
  const own = useOwnItems(channel)
  const how = useHowItems(channel)
  const from = channel.records ?? ''
  const mark = (id: string) => (from === id ? ' ✓' : '')
  return (
    <Menu
      label={from ? `Recorded from ${inputName(from)}` : `Record ${channel.name}`}
      className="btn btn-xs btn-outline font-normal"
      items={[
        {
          text: `Own input: microphone, interface${mark('own')}`,
          run: () => void recordFrom(channel, 'own'),
        },
        ...own,
        ...inputs.map((k) => ({
          text: `${k.name} (stand-in)${mark(k.id)}`,
          run: () => void recordFrom(channel, k.id),
        })),
        from !== '' && { text: 'Nothing', run: () => void recordFrom(channel, '') },
        ...how,
      ]}
      foot={from === 'own' ? () => <DelayForm /> : undefined}
    >
      {from ? `From ${inputName(from)}` : 'Record'} ▾
    </Menu>
  )
}

/** Which input of the browser's it is, and what of it. */
function useOwnItems(channel: Channel): Item[] {
  const devices = useSession((s) => s.devices)
  const device = useSession((s) => s.device)
  const side = useSession((s) => s.sides[channel.id] ?? 'both')
  const ready = useSession((s) => channel.id in s.ready)
  if (channel.records !== 'own' || !ready) return []
  return [
    ...devices.map((d) => ({
      text: `— ${d.name || 'An input without a name'}${d.name === device ? ' ✓' : ''}`,
      run: () => void chooseDevice(d.id),
    })),
    { text: '— Measure its delay: a click goes out and comes in', run: () => void measureDelay() },
    ...(['both', 'left', 'right'] as const).map((s) => ({
      text: `— ${s === 'both' ? 'Both sides of it' : `Its ${s} side only`}${s === side ? ' ✓' : ''}`,
      run: () => chooseSide(channel.id, s),
    })),
  ]
}

/** How it is heard meanwhile, and how a recording begins. */
function useHowItems(channel: Channel): Item[] {
  const hear = useSession((s) => s.ready[channel.id])
  const direct = useSession((s) => s.direct)
  const { click, countIn, aside, beside, ring } = useViewOf('click', 'countIn', 'aside', 'beside', 'ring')
  const own = channel.records === 'own'
  return [
    hear !== undefined && {
      text:
        hear > HEAR_OFF
          ? 'Do not hear it through the chain'
          : `Hear it through the chain${own ? `, ${lateBy()} ms late` : ''}`,
      run: () => hearSelf(channel.id, hear > HEAR_OFF ? HEAR_OFF : HEAR),
    },
    own &&
      hear !== undefined && {
        text: direct ? 'Do not hear it directly' : 'Hear it directly, without the chain',
        run: () => hearDirectly(!direct),
      },
    {
      text: `Works ${ring} ms ahead: rather ${nextRing(ring)} ms`,
      run: () => setRing(nextRing(ring)),
    },
    { text: click ? 'No click' : 'Click on the beats', key: '4', run: () => setClick(!click) },
    {
      text: countIn ? 'Do not count in' : 'Count in a bar',
      run: () => setView({ countIn: countIn ? 0 : 1 }),
    },
    countIn === 1 && { text: 'Count in two bars', run: () => setView({ countIn: 2 }) },
    {
      text: aside ? 'Put down what is recorded' : 'Keep what is recorded aside, among the takes',
      run: () => setView({ aside: !aside }),
    },
    {
      text: beside ? 'Put it down on the row itself' : 'Put it down on a new row',
      run: () => setView({ beside: !beside }),
    },
  ]
}

/** How far ahead of the ears the engine can work, in ms. */
const RINGS = [50, 100, 200]
const nextRing = (ring: number) => RINGS[(RINGS.indexOf(ring) + 1) % RINGS.length]!

/** Makes a row ready to be recorded. */
export function ReadyButton({ channel }: { channel: Channel }) {
  const ready = useSession((s) => channel.id in s.ready)
  if (!channel.records) return null
  return (
    <button
      className="btn btn-xs font-normal"
      style={
        ready
          ? { background: 'var(--live)', borderColor: 'var(--live)', color: 'var(--paper)' }
          : { background: 'transparent', borderColor: 'var(--live)', color: 'var(--live)' }
      }
      aria-pressed={ready}
      title="Ready to be recorded in this window ( Shift R )"
      onClick={() => setReady(channel, !ready)}
    >
      {ready ? 'Ready' : 'Make ready'}
    </button>
  )
}
