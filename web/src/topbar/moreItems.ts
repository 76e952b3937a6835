import type { Choice } from '../controls/MenuEntry'
import { hear } from '../session/listening'
import { setView, view } from '../session/view'
import { openRemarks } from '../remarks/about'
import { openShelf } from '../shelf/open'
import { SIZES, turnSize } from '../theme/size'
import { shownTheme, turnTheme } from '../theme/theme'

/** What is wanted now and then: the logbook, keys, rows, and how all of it looks. */
export function moreItems(): Choice[] {
  const { mono, size } = view()
  return [
    { text: 'Crew', run: () => setView({ dialog: { kind: 'crew' } }) },
    { text: 'Remarks', key: '⇧Z', run: openRemarks },
    { text: 'Versions', run: () => setView({ dialog: { kind: 'versions' } }) },
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
  ]
}
