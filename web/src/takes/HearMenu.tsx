import type { Channel } from '../api/types'
import { Menu } from '../controls/Menu'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { HearForm } from './HearForm'
import { hearBy, hears, type Ways } from './hearing'
import { LEAD } from './own'
import { lateBy } from './recording'

const NAMES: Record<Ways, string> = {
  off: 'not heard',
  chain: 'heard through the chain',
  straight: 'heard straight',
  sends: 'heard straight, with its returns',
}

/** How one hears oneself on a row while one is recorded. */
export function HearMenu({ channel }: { channel: Channel }) {
  useSession((s) => [s.ready[channel.id], s.direct, s.returns].join())
  const device = useView((v) => v.inputDevice)
  const own = channel.records === 'own'
  const straight = own && device !== LEAD
  const now = hears(channel.id, straight)
  const late = own ? `, ${lateBy()} ms late` : ''
  const item = (how: Ways, text: string, says?: string) => ({
    text: how === now ? `${text} ✓` : text,
    says,
    run: () => hearBy(channel.id, how),
  })
  return (
    <Menu
      label={`How you hear ${channel.name}: ${NAMES[now]}`}
      className="btn btn-xs btn-ghost px-1 font-normal"
      items={[
        { over: 'You hear what comes in' },
        item('off', 'Not at all'),
        item('chain', `Through the chain${late}`),
        straight && item('straight', 'Straight, without the chain'),
        straight &&
          item(
            'sends',
            `Straight, with its returns${late}`,
            'The row itself is left out of what the engine plays: only what it sends is heard from there.',
          ),
      ]}
      foot={() => <HearForm />}
    >
      {NAMES[now]} ▾
    </Menu>
  )
}
