import type { ReactNode } from 'react'

/** Figures stand on a plate of water, so that the signal line does not strike them through. */
export function Plate({ children }: { children: ReactNode }) {
  return (
    <span className="relative -top-[1px] px-[1px]" style={{ background: 'var(--shoal-1)' }}>
      {children}
    </span>
  )
}
