import type { Channel } from '../api/types'
import { ask, callOff } from '../clips/worked'
import { Menu } from '../controls/Menu'
import { holds, liftLine, lineIndex, printWhenAsked, useLineWork } from './line'

/** What can be done with the line of a row. */
export function LineMenu({ channel }: { channel: Channel }) {
  const work = useLineWork(channel.id)
  if (lineIndex(channel) < 0) return null
  const asked = channel.printWhenAsked ?? false
  const going = work?.state === 'running' || work?.state === 'waiting'
  return (
    <Menu
      label={`The line of ${channel.name}`}
      className="btn btn-xs btn-outline font-normal"
      items={[
        !!work && !holds(work) && !going && { text: 'Print again', run: () => void ask(work) },
        !!work && going && { text: 'Call the print off', run: () => void callOff(work) },
        asked
          ? { text: 'Print by itself after changes', run: () => void printWhenAsked(channel, false) }
          : { text: 'Print only when asked', run: () => void printWhenAsked(channel, true) },
        { text: 'Lift the line: all runs', key: 'P', run: () => void liftLine(channel) },
      ]}
    >
      Line ▾
    </Menu>
  )
}
