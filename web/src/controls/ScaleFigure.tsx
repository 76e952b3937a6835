import { useEffect, useRef } from 'react'
import type { Param } from '../api/types'
import { figure, parted } from './format'

type Props = {
  param: Param
  value: number
  name: string
  typing: boolean
  onTyping: (on: boolean) => void
  /** Takes what was typed, if it can be read. */
  take: (text: string) => boolean
  /** Where there is little room it stands without its unit. */
  small?: boolean
  /** The unit follows at once, in the same hand. */
  close?: boolean
  /** Where the focus belongs when a value was typed. */
  back: () => void
}

/** The figure of a scale; pressed, a value is typed in its place. */
export function ScaleFigure({ param, value, name, typing, onTyping, take, small, close, back }: Props) {
  const [number, unit] = parted(param, value)
  const field = useRef<HTMLInputElement>(null)
  useEffect(() => {
    if (typing) field.current?.select()
  }, [typing])
  const done = () => {
    onTyping(false)
    back()
  }
  if (typing)
    return (
      <input
        ref={field}
        autoFocus
        className={`figure input input-xs px-1 text-right ${small ? 'w-full' : close ? 'w-[64px]' : 'w-[88px]'}`}
        aria-label={`${name}, type a value`}
        defaultValue={figure(param, value).replace('−', '-')}
        onBlur={() => onTyping(false)}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Escape') done()
          if (e.key !== 'Enter') return
          if (take(e.currentTarget.value)) done()
          else e.currentTarget.classList.add('input-error')
        }}
      />
    )
  return (
    <button
      className={`figure h-6 max-w-full cursor-text truncate text-right underline decoration-[var(--hair)] decoration-dotted underline-offset-2 hover:decoration-[var(--ink)] ${small ? 'w-full text-small' : 'text-label'}`}
      tabIndex={-1}
      title={`${param.says} Click to type a value.`}
      onClick={() => onTyping(true)}
    >
      {small ? figure(param, value) : number}
      {!small && unit && <span className={close ? '' : 'soft text-small'}> {unit}</span>}
    </button>
  )
}
