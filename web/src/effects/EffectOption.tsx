import { type MouseEvent, useEffect, useRef } from 'react'
import type { EffectInfo } from '../api/types'
import { carry } from '../board/carry'
import { chosenLook } from '../controls/list'
import { presetOf } from './presets'
import { remember } from './search'

type Props = {
  of: EffectInfo
  chosen: boolean
  liked: boolean
  /** Takes it: with Shift switched off, with Alt its row is printed. */
  onTake: (key: { shiftKey: boolean; altKey: boolean }) => void
  onLike: () => void
  /** How many presets there are of it, and what shows them. */
  presets: number
  onPresets: () => void
}

/** In a list of options there is nothing else: by keys these are → and *. What is typed goes on being searched for. */
const aside = { tabIndex: -1, 'aria-hidden': true, onMouseDown: (e: MouseEvent) => e.preventDefault() }

/** An entry of the list of effects: pressed it is added, dragged it goes where it is dropped. */
export function EffectOption({ of: e, chosen, liked, onTake, onLike, presets, onPresets }: Props) {
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
        onClick={onTake}
        onDragStart={(ev) => {
          if (!preset) remember(e.id)
          carry(ev, preset ? { preset } : { effect: e.id })
        }}
      >
        <span className="font-semibold">{e.name}</span>
        <span className="soft block text-small">{e.says}</span>
      </button>
      {presets > 0 && (
        <button
          {...aside}
          className="soft h-6 shrink-0 px-1 text-small underline decoration-dotted"
          title={`The presets of ${e.name}`}
          onClick={onPresets}
        >
          {presets} preset{presets > 1 && 's'}
        </button>
      )}
      {!preset && (
        <button
          {...aside}
          className="soft h-6 w-6 shrink-0 text-label"
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
