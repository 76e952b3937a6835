import { useListItem } from '@floating-ui/react'
import { createContext, type HTMLProps, use } from 'react'

/** What can be chosen; says is a sentence about it. */
export type Choice = { text: string; run: () => void; key?: string; off?: boolean; says?: string }

/** An entry of a menu, or what stands over those that follow. */
export type Item = Choice | { over: string } | null | false

/** What a menu offers, or what says that when it is asked: of very many menus one is open at a time. */
export type Items = Item[] | (() => Item[])

export const offered = (items: Items) => (typeof items === 'function' ? items() : items)

/** What entries of an open menu share: which of them has the focus, and what they answer to. */
export const Open = createContext<{
  active: number | null
  of: (p: HTMLProps<HTMLElement>) => Record<string, unknown>
} | null>(null)

/** Keys that a menu answers to are no keys of the board. */
export const inside = (e: React.KeyboardEvent) => {
  if (!e.ctrlKey && !e.metaKey) e.nativeEvent.stopPropagation()
}

export function Entry({ item, shut }: { item: Choice; shut: () => void }) {
  const look = useEntry(item.text)
  return (
    <button
      type="button"
      {...look}
      role="menuitem"
      disabled={item.off}
      title={item.says}
      className={`flex min-h-6 items-center gap-2 rounded px-2.5 py-1 text-left text-label ${item.off ? 'opacity-40' : 'hover:bg-[var(--shoal-2)] focus:bg-[var(--shoal-2)]'}`}
      onClick={() => {
        shut()
        item.run()
      }}
    >
      <span className="grow">{item.text}</span>
      {item.key && <kbd className="kbd kbd-xs">{item.key}</kbd>}
    </button>
  )
}

/** What lets an element be an entry of the menu around it: arrow keys lead to it. */
export function useEntry(label: string) {
  const { ref, index } = useListItem({ label })
  const open = use(Open)!
  const first = open.active === null && index === 0
  return { ref, tabIndex: first || open.active === index ? 0 : -1, ...open.of({}) }
}
