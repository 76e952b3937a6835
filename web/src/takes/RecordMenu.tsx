import type { Channel } from '../api/types'
import { Menu } from '../controls/Menu'
import type { Item } from '../controls/MenuEntry'
import { useSession } from '../session/store'
import { setView, useView, useViewOf } from '../session/view'
import { DelayForm } from './DelayForm'
import { chooseDevice, chooseSide, LEAD, measureDelay } from './own'
import { inputName, recordFrom, setClick, setReady, setRing } from './recording'

/** What a track is recorded from, and how. */
export function RecordMenu({ channel }: { channel: Channel }) {
  const from = useFromItems(channel)
  const own = useOwnItems(channel)
  const how = useHowItems()
  const input = channel.records ?? ''
  const ready = useSession((s) => channel.id in s.ready)
  const device = useView((v) => v.inputDevice)
  const name = inputName(input, device)
  return (
    <Menu
      label={input ? `Recorded from ${name}` : `Record ${channel.name}`}
      className="btn btn-xs btn-outline font-normal"
      items={[...from, ...own, ...how]}
      foot={input === 'own' && ready ? () => <DelayForm /> : undefined}
    >
      {input ? `From ${name}` : 'Record'} ▾
    </Menu>
  )
}

const chosen = (text: string, is: boolean) => (is ? `${text} ✓` : text)

/** What it can be recorded from. */
function useFromItems(channel: Channel): Item[] {
  const inputs = useSession((s) => s.inputs)
  const lead = useView((v) => v.inputDevice === LEAD)
  const from = channel.records ?? ''
  return [
    { over: 'Recorded from' },
    {
      text: chosen('Own input: microphone, interface', from === 'own' && !lead),
      run: () => void recordFrom(channel, 'own'),
    },
    ...inputs.map((k) => ({
      text: chosen(`${k.name} (stand-in)`, from === k.id),
      says: k.says,
      run: () => void recordFrom(channel, k.id),
    })),
    {
      text: chosen('Long lead (stand-in for your own input)', from === 'own' && lead),
      says: 'The reader at the end of a long lead: what arrives is 60 ms late, comes in bursts, and now and then a piece of it is lost.',
      run: () => void recordFrom(channel, 'own', true),
    },
    from !== '' && { text: 'Nothing', run: () => void recordFrom(channel, '') },
  ]
}

/** Which input of the browser's it is, and what of it. */
function useOwnItems(channel: Channel): Item[] {
  const devices = useSession((s) => s.devices)
  const device = useSession((s) => s.device)
  const lead = useView((v) => v.inputDevice === LEAD)
  const side = useSession((s) => s.sides[channel.id] ?? 'both')
  const ready = useSession((s) => channel.id in s.ready)
  if (channel.records !== 'own' || !ready) return []
  return [
    { over: 'Which input, and what of it' },
    ...(lead ? [] : devices).map((d) => ({
      text: chosen(d.name || 'An input without a name', d.name === device),
      run: () => void chooseDevice(d.id),
    })),
    !lead && {
      text: 'Measure its delay: a click goes out and comes in',
      run: () => void measureDelay(),
    },
    ...(['both', 'left', 'right'] as const).map((s) => ({
      text: chosen(s === 'both' ? 'Both sides of it' : `Its ${s} side only`, s === side),
      run: () => chooseSide(channel.id, s),
    })),
  ]
}

/** How a recording begins, and what becomes of it. */
function useHowItems(): Item[] {
  const { click, countIn, aside, beside, ring } = useViewOf('click', 'countIn', 'aside', 'beside', 'ring')
  return [
    { over: 'Recording' },
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
