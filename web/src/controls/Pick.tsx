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
      className="grid items-center gap-2 text-small"
      style={{ gridTemplateColumns: `minmax(0, 1fr) ${p.wide ? 172 : 112}px` }}
      title={p.says}
      data-says={p.says}
    >
      {p.label}
      <select
        className="select select-xs w-full pr-6"
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
      className="flex h-6 cursor-pointer items-center justify-between gap-2 text-small"
      title={p.says}
      data-says={p.says}
    >
      {p.label}
      <input
        type="checkbox"
        className="toggle toggle-xs"
        checked={p.on}
        onChange={(e) => p.onSet(e.target.checked)}
      />
    </label>
  )
}
