import type { Channel } from '../api/types'
import { Menu } from '../controls/Menu'
import { useSession } from '../session/store'
import { setView, useViewOf } from '../session/view'
import { HEAR, HEAR_OFF, hearSelf, inputName, recordFrom, setClick, setReady } from './recording'

/** What a track is recorded from, and how. */
export function RecordMenu({ channel }: { channel: Channel }) {
  const inputs = useSession((s) => s.inputs)
  const hear = useSession((s) => s.ready[channel.id])
  const { click, countIn, aside } = useViewOf('click', 'countIn', 'aside')
  const from = channel.records ?? ''
  return (
    <Menu
      label={from ? `Recorded from ${inputName(from)}` : `Record ${channel.name}`}
      className="btn btn-xs btn-outline font-normal"
      items={[
        ...inputs.map((k) => ({
          text: `${k.name} (stand-in)${from === k.id ? ' ✓' : ''}`,
          run: () => void recordFrom(channel, k.id),
        })),
        from !== '' && { text: 'Nothing', run: () => void recordFrom(channel, '') },
        hear !== undefined && {
          text: hear > HEAR_OFF ? 'Do not hear it while it is recorded' : 'Hear it through the chain',
          run: () => hearSelf(channel.id, hear > HEAR_OFF ? HEAR_OFF : HEAR),
        },
        { text: click ? 'No click' : 'Click on the beats', key: '4', run: () => setClick(!click) },
        {
          text: countIn
            ? `Counts in ${countIn} ${countIn > 1 ? 'bars' : 'bar'}: not at all`
            : 'Count in a bar',
          run: () => setView({ countIn: countIn ? 0 : 1 }),
        },
        !!countIn && countIn < 2 && { text: 'Count in two bars', run: () => setView({ countIn: 2 }) },
        {
          text: aside ? 'Put down what is recorded' : 'Keep what is recorded aside, among the takes',
          run: () => setView({ aside: !aside }),
        },
      ]}
    >
      {from ? `From ${inputName(from)}` : 'Record'} ▾
    </Menu>
  )
}

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
