import { useLayoutEffect } from 'react'
import { type Choice, type Items, offered } from './MenuEntry'

/* The menus that are on the screen, by their names: what they offer can be found by words too. */

const here = new Map<string, Items>()

/** Lets what a menu offers be found as long as it is there. */
export function useMenuHere(name: string | undefined, items: Items) {
  useLayoutEffect(() => {
    if (!name) return
    here.set(name, items)
    return () => void (here.get(name) === items && here.delete(name))
  }, [name, items])
}

/** What can be chosen now of the menu with a name. */
export const choicesOf = (name: string): Choice[] => choices(here.get(name) ?? [])

/** What can be chosen of what a menu offers. */
export const choices = (items: Items): Choice[] =>
  offered(items).filter((x): x is Choice => !!x && 'text' in x && !x.off)
