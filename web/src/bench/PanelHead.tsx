import type { ReactNode } from 'react'

/** What stands at the top of the bench's right: what it is, of what, and what can be done with it. */
export const PanelHead = (p: { title: string; of: ReactNode; says?: string; children?: ReactNode }) => (
  <div className="mb-1.5 flex h-7 shrink-0 items-center gap-2">
    <h2 className="shrink-0 text-head font-bold whitespace-nowrap" title={p.says}>
      {p.title}
    </h2>
    <span
      className="soft line-clamp-2 min-w-0 text-small leading-[14px]"
      title={typeof p.of === 'string' ? p.of : undefined}
    >
      {p.of}
    </span>
    <span className="ml-auto flex shrink-0 items-center gap-1">{p.children}</span>
  </div>
)
