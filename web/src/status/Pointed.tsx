import { useEffect, useState } from 'react'
import { effectOf, findNode } from '../document/chain'
import { nameOf } from '../session/selected'
import { useSession } from '../session/store'
import { setView, useView, view } from '../session/view'

/** What the stage or fork under the pointer does, and how it is heard without. */
export function Pointed() {
  const id = useView((v) => v.pointed)
  const effects = useSession((s) => s.effects)
  const node = useSession((s) => (id ? findNode(s.project, id)?.node : undefined))
  const [isFigure, setIsFigure] = useState(false)
  useEffect(() => {
    const look = (e: PointerEvent) => {
      setIsFigure(!!(e.target as Element).closest('[data-depth]'))
      const at = (e.target as Element).closest<HTMLElement>('[data-stage], [data-fork], [data-node]')?.dataset
      const pointed = at?.stage ?? at?.fork ?? at?.node ?? ''
      if (pointed !== view().pointed) setView({ pointed })
    }
    document.addEventListener('pointerover', look)
    return () => document.removeEventListener('pointerover', look)
  }, [])
  if (isFigure)
    return (
      <span className="soft min-w-0 truncate" data-testid="pointed">
        A figure is the <b>level there</b>, in dB below full scale, tenths small: 6<sub>5</sub> is −6.5 dB.
      </span>
    )
  if (!node) return null
  const at = node.stage ?? node.fork!
  const says = node.stage
    ? effectOf(node.stage, effects)?.says
    : `${node.fork!.paths.length} paths side by side, joined again behind them.`
  return (
    <span className="soft flex min-w-0 items-center gap-1.5" data-testid="pointed">
      <span className="truncate">
        <b>{nameOf(id)}</b>: {says}
      </span>
      <kbd className="kbd kbd-xs">5</kbd>
      <span className="whitespace-nowrap">held: {at.bypass ? 'with' : 'without'} it</span>
    </span>
  )
}
