/** A choice from a list, with its name beside it and what it does on hover and focus. */
export function Pick<T extends string | number>(p: {
  label: string
  says: string
  value: T
  choices: { value: T; text: string }[]
  onPick: (v: T) => unknown
  /** Its choices have long names. */
  wide?: boolean
}) {
  return (
    <label
      className={
        p.wide
          ? 'grid grid-cols-[minmax(0,1fr)_190px] items-center gap-2 text-label'
          : 'block min-h-[37px] text-label'
      }
      title={p.says}
      data-says={p.says}
    >
      {/* over the list's edge, which stands close below it */}
      <span className="pointer-events-none relative z-10 block leading-4 [overflow-wrap:anywhere]">
        {p.label}
      </span>
      <select
        className="select select-xs -mt-[2px] w-full pr-6"
        aria-label={p.label}
        value={p.value}
        onChange={(e) => p.onPick(p.choices[e.target.selectedIndex]!.value)}
      >
        {p.choices.map((c) => (
          <option key={c.value} value={c.value}>
            {c.text}
          </option>
        ))}
      </select>
    </label>
  )
}

/** Something that is on or off. */
export function Toggle(p: { label: string; says: string; on: boolean; onSet: (on: boolean) => unknown }) {
  return (
    <label
      className="flex min-h-6 min-w-0 cursor-pointer items-center justify-between gap-2 text-label"
      title={p.says}
      data-says={p.says}
    >
      <span className="min-w-0 leading-4 [overflow-wrap:anywhere]">{p.label}</span>
      <input
        type="checkbox"
        className="toggle toggle-sm"
        checked={p.on}
        onChange={(e) => p.onSet(e.target.checked)}
      />
    </label>
  )
}
