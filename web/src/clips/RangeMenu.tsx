import { Menu } from '../controls/Menu'
import { openMaker } from '../passages/actions'
import { setView, useView } from '../session/view'
import { setLoop } from '../session/transport'
import * as actions from './actions'
import { printRange } from './permanent'

/** What can be done with a range that was drawn over rows; it opens where that was pressed. */
export function RangeMenu() {
  const piece = useView((v) => v.piece)
  return (
    <Menu
      label="Menu of the range"
      named="range"
      className="hidden"
      items={[
        { text: 'Cut at both ends', key: 'I', run: () => void actions.cut() },
        { text: 'Join what was cut', key: '⇧I', run: () => void actions.join() },
        { text: 'Treat what lies in it', key: '/', run: actions.treatRange },
        { text: 'Print what lies in it, where it stands', key: 'P', run: () => void printRange() },
        { text: 'Select the clips under it', key: '⏎', run: actions.takeUnder },
        { text: 'Make a passage of it', key: '⇧L', run: () => openMaker() },
        {
          text: 'Loop over it',
          run: () => piece && setLoop({ from: piece.from, to: piece.to, name: 'the range' }),
        },
        { text: 'Put it away', key: 'Esc', run: () => setView({ piece: null }) },
      ]}
    >
      ⋯
    </Menu>
  )
}
