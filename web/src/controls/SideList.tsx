import type { KeyboardEvent, ReactNode } from 'react'
import { Card } from './Card'

/** A list beside the board, with keys of its own: one can go on listening and dragging. */
export const SideList = (p: {
  label: string
  head: ReactNode
  children: ReactNode
  foot: ReactNode
  width?: number
  onClose: () => void
  onKey: (e: KeyboardEvent) => void
}) => (
  <Card
    label={p.label}
    title={p.head}
    width={p.width ?? 480}
    foot={p.foot}
    onClose={p.onClose}
    onKey={p.onKey}
  >
    {p.children}
  </Card>
)
