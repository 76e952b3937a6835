import { findNode } from '../document/chain'
import { tryChanges } from './changes'
import { notice, refused, theProject } from './store'
import { setView, view } from './view'

/** As long as a key is held, this window hears the mix without the stage or fork under the pointer, or without the selected
    one; and with it where it is bypassed. Nothing of it enters the document. */
export function holdWithout() {
  if (view().without) return // the key repeats
  const id = view().pointed || view().stage
  const node = findNode(theProject(), id)?.node
  const at = node?.stage ?? node?.fork
  if (!at) return notice('Point at a stage, or select one: while 5 is held it is not heard.')
  setView({ without: at.id })
  tryChanges([{ type: 'node.set', do: { id: at.id, bypass: !at.bypass } }]).catch(refused)
  const end = () => {
    window.removeEventListener('keyup', end)
    window.removeEventListener('blur', end)
    setView({ without: '' })
    tryChanges([]).catch(refused)
  }
  window.addEventListener('keyup', end)
  window.addEventListener('blur', end)
}
