import { useEffect, useRef } from 'react'
import type { Change, Sounding } from '../api/types'
import { SideList } from '../controls/SideList'
import { findFork, findNode } from '../document/chain'
import { change } from '../session/changes'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { Shape } from './Diamond'

/** What was noticed, in words: where, why it matters, and how to mend it. Nothing here interrupts. */
export function SoundingList({ row }: { row?: string }) {
  const blind = useView((v) => v.blind?.channel) // what is noticed there would tell
  const all = useSession((s) => s.soundings).filter((x) => x.channel !== blind)
  const box = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const first = row && box.current?.querySelector<HTMLElement>(`[data-on="${row}"]`)
    ;(first || box.current)?.querySelector('button')?.focus()
    if (first) first.scrollIntoView({ block: 'nearest' })
  }, [row])
  const open = all.filter((x) => !x.meant)
  const meant = all.filter((x) => x.meant)
  return (
    <SideList
      label="Soundings"
      head={open.length === 0 ? 'Nothing to sound' : `${open.length} sounding${open.length > 1 ? 's' : ''}`}
      foot="What is measured is built on the last half minute of playing."
      onClose={() => setView({ dialog: null })}
      onKey={() => undefined}
      width={560}
    >
      <div ref={box} className="flex min-h-0 flex-col gap-2 overflow-y-auto pr-1" tabIndex={-1}>
        {open.length === 0 && (
          <p className="soft text-small">
            Every send comes back, every key is fed, nothing is doubled. Play for a while: some things can
            only be measured.
          </p>
        )}
        {open.map((x) => (
          <Item key={x.rule + x.at} x={x} />
        ))}
        {meant.length > 0 && (
          <details>
            <summary className="soft cursor-pointer text-small">{meant.length} meant as they are</summary>
            {meant.map((x) => (
              <Item key={x.rule + x.at} x={x} />
            ))}
          </details>
        )}
      </div>
    </SideList>
  )
}

function Item({ x }: { x: Sounding }) {
  const rowName = useSession((s) => s.project?.channels.find((c) => c.id === x.channel)?.name ?? '')
  const go = () => {
    const p = useSession.getState().project
    select(x.channel, findNode(p, x.at) || findFork(p, x.at) ? x.at : '')
    setView({ bench: true })
  }
  const mean = (on: boolean) =>
    change(`${on ? 'Say that it is meant' : 'No longer meant'}: ${x.title}`, {
      type: 'sounding.mean',
      do: { rule: x.rule, at: x.at, meant: on },
    })
  return (
    <article
      data-on={x.channel}
      className="rounded border p-2 text-small"
      style={{ borderColor: 'var(--hair)', background: 'var(--paper)' }}
      aria-label={x.title}
    >
      <div className="flex items-center gap-1.5">
        <Shape weight={x.weight} />
        <b>{x.title}</b>
        <button className="soft ml-auto h-6 shrink-0 underline" onClick={go}>
          {rowName}
        </button>
      </div>
      <p className="my-1">{x.says}</p>
      <div className="flex flex-wrap gap-1">
        {!x.meant &&
          x.fixes.map((f) => (
            <button
              key={f.says}
              className="btn btn-xs btn-outline h-auto min-h-6 py-0.5 text-left font-normal"
              onClick={() => void change(f.says, ...(f.changes as Change[]))}
            >
              {f.says}
            </button>
          ))}
        <button className="btn btn-xs btn-ghost font-normal" onClick={() => void mean(!x.meant)}>
          {x.meant ? `${x.meant} meant it; sound it again` : 'This is meant'}
        </button>
      </div>
    </article>
  )
}
