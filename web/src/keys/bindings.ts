import { type Key, keys } from './keys'
import { selection } from './steps'

/** A hotkey of the board. A sign is meant by what it types, not by where its key lies. */
export type Binding = {
  on: string
  /** What it does with what is selected now, if anything. */
  now: () => { run: () => unknown; blind: boolean } | undefined
  uses: { key: Key; run: () => unknown }[]
  sign: boolean
}

const signs = ['/', '?', ';', '+,=', '-', '[', ']']

/** What leaves a blind comparison as it is, though its key does something else too. */
const harmless = ['escape']

const all = keys.flatMap((g) =>
  g.list.flatMap((key) => Object.entries(key.does ?? {}).map(([on, run]) => ({ on, key, run }))),
)

/** Every hotkey, from the table of keys, with all its uses: that for what is selected goes before that for anything. */
export const bindings: Binding[] = [...new Set(all.map((x) => x.on))].map((on) => {
  const uses = all.filter((x) => x.on === on)
  return {
    on,
    uses,
    now: () => {
      const what = selection()
      const use = uses.find((u) => u.key.on?.includes(what)) ?? uses.find((u) => !u.key.on)
      return use && { run: use.run, blind: !!use.key.blind || harmless.includes(on) }
    },
    sign: signs.includes(on),
  }
})
