import type { CSSProperties } from 'react'
import { besides, carryStage } from '../board/carry'
import { menuOnBench } from '../board/menuOnBench'
import { isGivenBack } from '../controls/useReturn'
import { select } from '../session/selected'
import { setView, useView } from '../session/view'
import { pick } from './pick'

/** How a stage or fork on the bench shows whether it works, is selected, and is listened to. */
export function useCard(id: string, hollow: boolean) {
  const selected = useView((v) => v.stage === id)
  const together = useView((v) => v.together.includes(id))
  const listened = useView((v) => v.listening?.node === id)
  const style: CSSProperties = {
    background: hollow ? 'transparent' : together ? 'var(--shoal-2)' : 'var(--card)',
    borderColor: selected ? 'var(--ink)' : 'var(--deep)',
    borderStyle: hollow ? 'dashed' : 'solid',
    boxShadow: selected ? '0 0 0 1.5px var(--ink)' : together ? '0 0 0 1.5px var(--deep)' : undefined,
  }
  return { style, pressed: selected || together, listened }
}

/** What a press, the focus, a double click and a drag do to it. */
export const cardProps = (id: string, channel: string, owner: string, index: number, draggable: boolean) => ({
  role: 'button',
  'data-node': id,
  tabIndex: 0,
  draggable,
  onClick: (e: React.MouseEvent) => pick(e, channel, id),
  onFocus: (e: React.FocusEvent) =>
    e.target === e.currentTarget &&
    !isGivenBack() && // what came meanwhile stays selected
    !useView.getState().together.includes(id) &&
    select(channel, id),
  onContextMenu: menuOnBench(channel, id),
  onDoubleClick: () => setView({ renaming: id }),
  onDragStart: (e: React.DragEvent) => carryStage(e, id),
  ...besides(owner, index),
})
