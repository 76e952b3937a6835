import { useEffect, useRef } from 'react'
import type { EffectInfo } from '../api/types'
import { carry } from '../board/carry'
import { chosenLook } from '../controls/list'
import { presetOf } from './presets'
import { remember } from './search'

type Props = {
  of: EffectInfo
  chosen: boolean
  liked: boolean
  /** Takes it, switched off or not. */
  onTake: (off: boolean) => void
  onLike: () => void
}

/** An entry of the list of effects: pressed it is added, dragged it goes where it is dropped. */
export function EffectOption({ of: e, chosen, liked, onTake, onLike }: Props) {
  const preset = presetOf(e.id)
  const ref = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    if (chosen) ref.current?.scrollIntoView({ block: 'nearest' })
  }, [chosen])
  return (
    <div className="flex items-start rounded-[2px]" style={chosenLook(chosen)}>
      <button
        role="option"
        aria-selected={chosen}
        draggable
        ref={ref}
        className="block min-w-0 grow px-2 py-1 text-left"
        onClick={(ev) => onTake(ev.shiftKey)}
        onDragStart={(ev) => {
          if (!preset) remember(e.id)
          carry(ev, preset ? { preset } : { effect: e.id })
        }}
      >
        <span className="font-semibold">{e.name}</span>
        <span className="soft block text-small">{e.says}</span>
      </button>
      {!preset && (
        <button
          className="soft h-6 w-6 shrink-0 text-label"
          tabIndex={-1}
          aria-hidden // in a list of options there is nothing else: by key it is *
          aria-pressed={liked}
          aria-label={`${e.name} is a favourite`}
          title="Favourites stand first"
          onClick={onLike}
        >
          {liked ? '★' : '☆'}
        </button>
      )}
    </div>
  )
}
