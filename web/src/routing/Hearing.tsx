import type { Channel } from '../api/types'
import { hearAlone } from '../session/listening'

export function Hearing({ channel, dry, share }: { channel: Channel; dry: boolean; share: boolean }) {
  const button = (part: 'dry' | 'share', on: boolean, text: string, key: string) => (
    <button
      className={`btn btn-xs h-auto min-h-6 justify-between py-0.5 font-normal ${on ? 'btn-secondary' : 'btn-outline'}`}
      aria-pressed={on}
      onClick={() => hearAlone(channel.id, part)}
    >
      {text} <kbd className="kbd kbd-xs">{key}</kbd>
    </button>
  )
  const gives = channel.kind === 'return'
  return (
    <>
      <span className="soft text-small">Hear, in this window only</span>
      {button('dry', dry, gives ? 'what goes into it, without it' : 'it without its returns', 'D')}
      {button('share', share, gives ? 'only what it brings back' : 'only what comes back', '⇧D')}
    </>
  )
}
