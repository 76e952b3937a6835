import { useState } from 'react'

type Props = {
  name: string
  label: string
  /** What stands there now. */
  shown: () => string
  /** Takes what was typed, if it can be. */
  take: (text: string) => void
  says: string
}

/** A figure that is typed at the foot of a menu: taken with Enter or when it is left, else what was there comes back. */
export function FigureLine({ name, label, shown, take, says }: Props) {
  const [text, setText] = useState(shown)
  const done = () => {
    take(text.replace(',', '.').replace('−', '-').trim())
    setText(shown())
  }
  return (
    <label className="flex items-center gap-2 px-2.5 py-1 text-label">
      <span>{name}</span>
      <input
        className="input input-xs figure w-[64px]"
        aria-label={label}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={done}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Enter') done()
        }}
      />
      <span className="soft text-small">{says}</span>
    </label>
  )
}
