import { useHotkeys } from 'react-hotkeys-hook'
import { notice } from '../session/store'
import { view } from '../session/view'
import { isBlind } from '../trials/actions'
import { enterPlumbs, enterScales } from './focus'
import { bindings } from './bindings'

/** Whether a key belongs to what has the focus: a field that is typed into, or a switch that Space turns. */
function typing(e: KeyboardEvent): boolean {
  const el = e.target
  if (!(el instanceof HTMLInputElement)) return false
  return el.type !== 'checkbox' || e.key === ' '
}

/** The keys of the board. Scales and cards keep theirs to themselves. */
export function useKeys() {
  for (const b of bindings) {
    // eslint-disable-next-line react-hooks/rules-of-hooks -- a fixed list, in a fixed order
    useHotkeys(
      b.on,
      (e) => {
        const use = b.now()
        if (!use) return
        e.preventDefault()
        if (isBlind(view().channel) && !use.blind)
          return notice('These are compared blind: choose one first, then go on with it.')
        void use.run()
      },
      {
        useKey: b.sign,
        enableOnFormTags: ['input', 'slider', 'option', 'menuitem', 'radio'],
        ignoreEventWhen: typing,
      },
    )
  }
  // from a stage to its scales, with Shift to its plumbs; both lead back with Esc
  useHotkeys(
    'enter,shift+enter',
    (e) => {
      const at = document.activeElement
      const own =
        !at || at === document.body || at.matches('[data-stage], [data-fork], [data-node], [data-row]')
      const selected = at?.getAttribute('data-node') ?? at?.getAttribute('data-stage') ?? view().stage
      if (own && selected === view().stage && (e.shiftKey ? enterPlumbs() : enterScales())) e.preventDefault()
    },
    { ignoreEventWhen: typing },
  )
}
