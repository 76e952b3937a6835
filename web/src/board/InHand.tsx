import type { Channel } from '../api/types'
import { useSession } from '../session/store'

/** Who has the row in hand, for how long still. */
export function InHand({ channel }: { channel: Channel }) {
  const me = useSession((s) => s.me?.id)
  const { hand } = channel
  if (!hand || new Date(hand.until) < new Date()) return null
  const until = new Date(hand.until).toLocaleTimeString([], { timeStyle: 'short' })
  const mine = hand.by.person === me
  return (
    <span
      className="soft truncate text-small italic"
      title={`In hand until ${until}: ${mine ? 'others are asked before they change it' : 'ask before you change it'}`}
    >
      in {mine ? 'your' : `${hand.by.name}’s`} hand
    </span>
  )
}
