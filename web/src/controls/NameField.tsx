import { setView, useView } from '../session/view'

/** A name being given: Enter takes it, Escape leaves the old one. */
export function NameField(p: { name: string; label: string; onName: (name: string) => void }) {
  return (
    <input
      autoFocus
      className="input input-xs w-full min-w-[76px]"
      aria-label={p.label}
      defaultValue={p.name}
      onFocus={(e) => e.target.select()}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Escape') setView({ renaming: '' })
        if (e.key === 'Enter') e.currentTarget.blur()
      }}
      onBlur={(e) => {
        if (!useView.getState().renaming) return
        setView({ renaming: '' })
        const next = e.target.value.trim()
        if (next !== p.name) p.onName(next)
      }}
    />
  )
}
