import { opens } from '../controls/menuAt'
import { select } from '../session/selected'
import { setView } from '../session/view'

/** The menu of something that is selected of a row: it stands on the bench. */
export const menuOnBench = (channel: string, id: string, kind = 'stage') =>
  opens(`${kind} ${id}`, () => {
    setView({ bench: true })
    select(channel, id)
  })
