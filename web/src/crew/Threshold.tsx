import type { ReactNode } from 'react'

/** What stands before somebody has come in. */
export function Threshold({ title, says, children }: { title: string; says?: string; children: ReactNode }) {
  return (
    <main className="grid h-full place-items-center overflow-y-auto p-6">
      <section className="flex w-[400px] max-w-full flex-col gap-4 rounded border p-6" style={edge}>
        <header>
          <h1 className="text-brand font-bold">{title}</h1>
          {says && <p className="soft">{says}</p>}
        </header>
        {children}
      </section>
    </main>
  )
}

const edge = { borderColor: 'var(--hair)', background: 'var(--card)' }
