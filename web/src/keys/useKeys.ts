import { useHotkeys } from 'react-hotkeys-hook'
import type { Fork, Path } from '../api/types'
import * as forks from '../bench/forks'
import { paste } from '../bench/paste'
import * as several from '../bench/several'
import { duplicateStage, shiftStage, toggleChain } from '../bench/stages'
import { zoomBy } from '../board/Board'
import { duplicateRow, moveRow, toggleMute } from '../board/rows'
import { clearMarks } from '../controls/Depth'
import { findFork, findStage, idOf, onward, shownChain, type Way } from '../document/chain'
import { barAt } from '../document/time'
import { toggleLines } from '../lines/actions'
import * as passages from '../passages/actions'
import { hearRowAlone, makeGroup, openSend, openTrace } from '../routing/gestures'
import { takeBack } from '../session/changes'
import { hear, listenTo, listenToAll, showDepth } from '../session/listening'
import { insertAt, placeOf, select, selectedChannel } from '../session/selected'
import { theEngine } from '../session/sound'
import { notice, useSession } from '../session/store'
import { locate, toggleLoop, togglePlay, toggleSolo } from '../session/transport'
import { setView, view } from '../session/view'
import { applyTheme, shownTheme } from '../theme/theme'
import * as trial from '../trials/actions'
import { enterScales } from './focus'

/** Whether a key belongs to what has the focus: a field that is typed into, or a switch that Space turns. */
function typing(e: KeyboardEvent): boolean {
  const el = e.target
  if (!(el instanceof HTMLInputElement)) return false
  return el.type !== 'checkbox' || e.key === ' '
}

/** What can be done with a row whose alternatives are compared blind. */
const blindly =
  'space|home|l|comma|period|up|down|y|shift+y|q|h|shift+h|m|z|?|1|2|3|k|g|e|escape|[|]|+,=|-'.split('|')

/** What stands at the side of the board, not over it. */
const beside: string[] = ['effects', 'presets', 'soundings', 'lines']

/** The keys of the board. Scales and cards keep theirs to themselves. */
export function useKeys() {
  const on = (keys: string, run: (e: KeyboardEvent) => void, useKey = false) =>
    // eslint-disable-next-line react-hooks/rules-of-hooks -- a fixed list, in a fixed order
    useHotkeys(
      keys,
      (e) => {
        const dialog = view().dialog
        // a list at the side leaves the board its keys; a card over it does not
        if (dialog && !beside.includes(dialog.kind)) return
        e.preventDefault()
        if (trial.isBlind(view().channel) && !blindly.includes(keys))
          return notice('These are compared blind: choose one first, then go on with it.')
        run(e)
      },
      {
        useKey,
        enableOnFormTags: ['input', 'slider', 'option', 'menuitem', 'radio'],
        ignoreEventWhen: typing,
      },
    )
  const rows = () =>
    (useSession.getState().project?.channels ?? []).filter((c) => view().showHidden || !c.hidden)
  const row = (run: (c: NonNullable<ReturnType<typeof selectedChannel>>) => void) => {
    const c = selectedChannel()
    if (c) run(c)
  }
  const stage = (run: (id: string) => void) => view().stage && run(view().stage)
  const effect = (run: (id: string) => void) => {
    const p = useSession.getState().project
    if (p && findStage(p, view().stage)) run(view().stage)
  }
  const path = (run: (f: Fork, p: Path) => unknown) => {
    const found = findFork(useSession.getState().project, view().stage)
    if (found?.path) run(found.fork, found.path)
    return found?.path
  }
  const stepRow = (by: number) => {
    const list = rows()
    const i = list.findIndex((c) => c.id === view().channel)
    const next = list[Math.min(Math.max(i + by, 0), list.length - 1)]
    if (next) select(next.id)
  }
  /** Along the chain that is shown; where that leads nowhere, down and up lead to the other rows. */
  const step = (way: Way) => {
    const c = selectedChannel()
    const chain = c && shownChain(c, view().trials).chain
    const by = way === 'right' || way === 'down' ? 1 : -1
    const across = way === 'up' || way === 'down'
    if (chain && view().stage) {
      const to = onward(chain, view().stage, way)
      if (to) return setView({ stage: to, together: [] })
    } else if (chain && !across) {
      const n = by > 0 ? chain.nodes[0] : chain.nodes.at(-1)
      if (n) setView({ stage: idOf(n), together: [] })
    }
    if (across) stepRow(by)
  }
  const shiftRow = (by: number) => {
    const all = useSession.getState().project?.channels ?? []
    const i = all.findIndex((c) => c.id === view().channel)
    if (i >= 0) moveRow(view().channel, by > 0 ? i + 2 : i - 1)
  }
  const stepBar = (by: number) => {
    const t = useSession.getState().timeline
    const h = theEngine()?.heard()
    if (t) locate(t.bars[Math.min(Math.max(barAt(t, h?.song ?? 0) + by, 0), t.bars.length - 1)]!.frame)
  }
  on('space', () => void togglePlay())
  on('home', () => locate(0))
  on('l', () => toggleLoop())
  on('shift+l', () => passages.openMaker())
  on('comma', () => stepBar(-1))
  on('period', () => stepBar(1))
  on('up', () => step('up'))
  on('down', () => step('down'))
  on('alt+up', () => path((f, p) => void forks.shiftPath(f, p, -1)) ?? shiftRow(-1))
  on('alt+down', () => path((f, p) => void forks.shiftPath(f, p, 1)) ?? shiftRow(1))
  on('left', () => step('left'))
  on('right', () => step('right'))
  on('alt+left', () => stage((id) => shiftStage(id, -1)))
  on('alt+right', () => stage((id) => shiftStage(id, 1)))
  on('q', () => row((c) => c.kind !== 'main' && void toggleMute(c)))
  on('h', () => row((c) => toggleSolo(c.id, false)))
  on('shift+h', () => row((c) => toggleSolo(c.id, true)))
  on('n', () => setView({ renaming: view().stage || view().channel }))
  on('c', () => row((c) => c.kind !== 'main' && void duplicateRow(c)))
  on('p', () =>
    row((c) =>
      setView({ dialog: { kind: 'print', channel: c.id, target: c.kind === 'track' ? 'track' : 'file' } }),
    ),
  )
  on('shift+left', () => several.extend(-1))
  on('shift+right', () => several.extend(1))
  on('b', () => path((_, p) => void forks.toggleMute(p)) ?? void several.bypass())
  on('shift+b', () => row((c) => void toggleChain(c)))
  on('u', () => path((_, p) => void forks.duplicatePath(p)) ?? stage((id) => void duplicateStage(id)))
  on('delete,backspace', () => {
    const x = passages.find(view().stage)
    if (x) void passages.remove(x)
    else void (path((f, p) => void forks.removePath(f, p)) ?? several.remove())
  })
  on('i', () => effect((id) => setView({ pinned: view().pinned === id ? '' : id })))
  on('w', () =>
    stage((id) => {
      const p = useSession.getState().project
      const fork = p && findFork(p, id)
      if (fork) setView({ dialog: { kind: 'presets', of: 'fork', target: fork.fork.id } })
      else if (p && findStage(p, id)) setView({ dialog: { kind: 'presets', of: 'stage', target: id } })
    }),
  )
  on(
    'shift+w',
    () =>
      path((_, p) => setView({ dialog: { kind: 'presets', of: 'chain', target: p.id } })) ??
      row((c) =>
        setView({ dialog: { kind: 'presets', of: 'chain', target: shownChain(c, view().trials).owner } }),
      ),
  )
  on('j', () => path((_, p) => forks.listenToPath(p.id, false)) ?? stage((id) => listenTo(id, false)))
  on('shift+j', () => stage((id) => listenTo(id, true)))
  on('f', () => void forks.forkSelection())
  on('v', () => path((_, p) => forks.listenToPath(p.id, false)))
  on('shift+v', () => path((_, p) => forks.listenToPath(p.id, true)))
  on('x', () => row((c) => toggleLines(c.id)))
  on('shift+x', () => row((c) => setView({ dialog: { kind: 'lines', row: c.id } })))
  on('s', openSend)
  on('a', () => void makeGroup())
  on('d', () => hearRowAlone('dry'))
  on('shift+d', () => hearRowAlone('share'))
  on('t', openTrace)
  on('m', () => hear({ mono: !view().mono }))
  on('z', () => setView({ dialog: view().dialog?.kind === 'soundings' ? null : { kind: 'soundings' } }))
  // from a stage to its scales; a scale leads back with Esc
  useHotkeys(
    'enter',
    (e) => {
      const at = document.activeElement
      const own =
        !at || at === document.body || at.matches('[data-stage], [data-fork], [data-node], [data-row]')
      const selected = at?.getAttribute('data-node') ?? at?.getAttribute('data-stage') ?? view().stage
      if (!view().dialog && own && selected === view().stage && enterScales()) e.preventDefault()
    },
    { ignoreEventWhen: typing },
  )
  on('escape', () => {
    if (view().dialog) return setView({ dialog: null })
    listenToAll()
    hear({ dry: '', share: '' })
    setView({ together: [], rows: [] })
  })
  on('ctrl+c,meta+c', () => void several.copy())
  on('ctrl+x,meta+x', () => void several.copy().then(() => several.remove()))
  on('ctrl+v,meta+v', () => void paste())
  on('o', () => row((c) => void trial.keepOtherOrder(c)))
  on('shift+o', () => row((c) => void trial.keep(c)))
  on('y', () => row((c) => trial.hearNext(c, 1)))
  on('shift+y', () => row((c) => trial.hearNext(c, -1)))
  on('e', clearMarks)
  on('shift+e', () => showDepth(view().depth === 'peak' ? 'rms' : 'peak'))
  on('r', () =>
    effect((id) => {
      const at = placeOf(id)
      if (at) setView({ dialog: { kind: 'effects', owner: at.owner, index: at.index, replace: id } })
    }),
  )
  on(
    '/',
    () => {
      const c = selectedChannel() ?? rows()[0]
      if (c) setView({ channel: c.id, dialog: { kind: 'effects', ...insertAt(c) } })
    },
    true,
  )
  on('?', () => setView({ dialog: { kind: 'keys' } }), true)
  on('1', () => setView({ tide: 'low' }))
  on('2', () => setView({ tide: 'mid' }))
  on('3', () => setView({ tide: 'high' }))
  on('+,=', () => setView({ rowHeight: Math.min(view().rowHeight + 9, 150) }), true)
  on('-', () => setView({ rowHeight: Math.max(view().rowHeight - 9, 63) }), true)
  on('[', () => zoomBy(1.5), true)
  on(']', () => zoomBy(1 / 1.5), true)
  on('k', () => setView({ bench: !view().bench }))
  on('g', () => applyTheme(shownTheme() === 'day' ? 'night' : 'day'))
  on('ctrl+z,meta+z', () => void takeBack('undo'))
  on('ctrl+shift+z,meta+shift+z', () => void takeBack('redo'))
}
