import { type KeyboardEvent, useRef, useState } from 'react'
import { Card } from '../controls/Card'
import { useSession } from '../session/store'
import type { About } from './about'
import { make } from './say'
import { Saying } from './Saying'
import { Thread } from './Thread'
import { useAboutCalled } from './useAboutCalled'
import { useRemarks } from './useRemarks'

/** What was said about places of the song, the newest first: what waits for me before the rest. */
export function RemarksCard({ about, row }: { about?: About; row?: string }) {
  const views = useRemarks()
  const remarks = useSession((s) => s.project!.remarks) ?? []
  const [all, setAll] = useState(false)
  const box = useRef<HTMLDivElement>(null)
  const shown = views
    .flatMap((v) => {
      const r = remarks.find((x) => x.id === v.id)
      return r && (all || !r.settled) && (!row || v.row === row) ? [{ v, r }] : []
    })
    .reverse()
    .sort((a, b) => Number(b.v.waits) - Number(a.v.waits))
  const settled = remarks.filter((r) => r.settled).length
  const step = (by: number) => {
    const list = [...(box.current?.querySelectorAll<HTMLElement>('article') ?? [])]
    const at = list.findIndex((x) => x.contains(document.activeElement))
    list[Math.min(Math.max(at + by, 0), list.length - 1)]?.focus()
  }
  const byKey = (e: KeyboardEvent) => {
    if (e.target instanceof HTMLTextAreaElement || (e.key !== 'ArrowDown' && e.key !== 'ArrowUp')) return
    e.preventDefault()
    step(e.key === 'ArrowDown' ? 1 : -1)
  }
  return (
    <Card title="Remarks" width={480} onKey={byKey}>
      {about && <New about={about} />}
      {shown.length === 0 && (
        <p className="soft">
          {row
            ? 'Nothing is open here.'
            : 'Nothing is open. Select a row, a stage, a clip or draw a range, and say what is to be done there.'}
        </p>
      )}
      <div ref={box} className="flex flex-col gap-2">
        {shown.map(({ v, r }) => (
          <Thread key={r.id} of={r} at={v} />
        ))}
      </div>
      {settled > 0 && (
        <button className="btn btn-sm btn-ghost mt-2 self-start font-normal" onClick={() => setAll(!all)}>
          {all ? 'Only what is open' : `Also what is settled: ${settled}`}
        </button>
      )}
    </Card>
  )
}

/** One that is to be made. */
function New({ about }: { about: About }) {
  const called = useAboutCalled(about)
  return (
    <section className="mb-3" aria-label="A new remark">
      <p className="mb-1">
        About <b>{called}</b>
      </p>
      <Saying
        label={`Say something about ${called}`}
        act="Say it"
        autoFocus
        onSay={(text, told) => make(about, text, told)}
      />
    </section>
  )
}
