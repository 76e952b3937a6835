import { type KeyboardEvent, type ReactNode, useState } from 'react'
import { listKeys } from './list'
import { SideList } from './SideList'

/** What is searched for in a list, and which of what is found Enter would take. */
export function useSearch(first = 0) {
  const [text, setText] = useState('')
  const [at, go] = useState(first)
  const search = (next: string) => {
    setText(next)
    go(0)
  }
  return { text, search, at, go }
}

type Props<T> = {
  label: string
  /** What stands in it: "Commands". */
  things: string
  placeholder: string
  width?: number
  head: ReactNode
  foot: ReactNode
  by: ReturnType<typeof useSearch>
  found: T[]
  onTake: (found: T, e: KeyboardEvent) => void
  onClose: () => void
  /** What stands between the field and what is found, and is none of it. */
  above?: ReactNode
  /** Keys besides the arrows and Enter. */
  onKey?: (e: KeyboardEvent) => void
  children: ReactNode
}

/** The one of what is found that Enter would take. */
export const chosenOf = <T,>(found: T[], at: number): T | undefined => found[Math.min(at, found.length - 1)]

/** A list beside the board that is searched by words and gone through by arrow keys. */
export function SearchList<T>({ label, things, by, found, onTake, onKey, children, ...p }: Props<T>) {
  return (
    <SideList
      label={label}
      width={p.width}
      head={p.head}
      foot={p.foot}
      onClose={p.onClose}
      onKey={(e) => {
        const chosen = chosenOf(found, by.at)
        listKeys(e, { at: by.at, of: found.length, go: by.go, take: () => chosen && onTake(chosen, e) })
        onKey?.(e)
      }}
    >
      <input
        autoFocus
        className="input input-sm w-full shrink-0"
        placeholder={p.placeholder}
        aria-label={`Search ${things.toLowerCase()}`}
        value={by.text}
        onChange={(e) => by.search(e.target.value)}
      />
      {p.above}
      <div className="mt-2 min-h-0 overflow-y-auto" role="listbox" aria-label={things}>
        {children}
      </div>
    </SideList>
  )
}
