import { Menu } from '../controls/Menu'
import { hear } from '../session/listening'
import { openShelf } from '../shelf/open'
import { setView, useViewOf } from '../session/view'
import { SIZES, turnSize } from '../theme/size'
import { shownTheme, turnTheme } from '../theme/theme'

/** What is wanted now and then: the logbook, keys, rows, and how all of it looks. */
export function MoreMenu() {
  const { mono, size } = useViewOf('mono', 'size')
  return (
    <Menu
      label="More"
      className="btn btn-xs btn-ghost px-1.5"
      items={[
        { text: 'Logbook', run: () => setView({ dialog: { kind: 'logbook' } }) },
        { text: 'Rows: find, hide, show', key: 'R', run: () => setView({ dialog: { kind: 'rows' } }) },
        { text: 'The shelf', key: 'W', run: openShelf },
        { text: 'Keys', key: '?', run: () => setView({ dialog: { kind: 'keys' } }) },
        {
          text: mono ? 'Hear both sides again' : 'Hear it in mono',
          key: 'M',
          run: () => hear({ mono: !mono }),
        },
        { text: shownTheme() === 'day' ? 'Night chart' : 'Day chart', key: 'G', run: turnTheme },
        {
          text: `Everything larger: ${size} %`,
          run: () => turnSize(1),
          off: size === SIZES.at(-1),
        },
        { text: 'Everything smaller', run: () => turnSize(-1), off: size === SIZES[0] },
      ]}
    >
      ⋯
    </Menu>
  )
}
