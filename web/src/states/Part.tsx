import type { ReactNode } from 'react'

export const Part = (p: { title: string; children: ReactNode }) => (
  <section className="flex flex-col gap-2">
    <h2 className="text-press font-semibold">{p.title}</h2>
    <div className="flex flex-wrap items-center gap-2 [&>.grid]:w-full">{p.children}</div>
  </section>
)
