import { Menu } from '../controls/Menu'
import { setView, useViewOf } from '../session/view'
import { moreItems } from './moreItems'

/** What is wanted now and then. */
export function MoreMenu() {
  useViewOf('mono', 'size') // the items tell them
  return (
    <Menu
      label="More"
      className="btn btn-xs btn-ghost px-1.5"
      items={[
        {
          text: 'Everything that can be done here',
          key: ';',
          run: () => setView({ dialog: { kind: 'commands' } }),
        },
        ...moreItems(),
      ]}
    >
      ⋯
    </Menu>
  )
}
