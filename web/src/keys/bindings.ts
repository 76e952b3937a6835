import { keys } from './keys'

/** A hotkey of the board. A sign is meant by what it types, not by where its key lies. */
export type Binding = { on: string; run: () => unknown; blind: boolean; sign: boolean }

const signs = ['/', '?', '+,=', '-', '[', ']']

/** What leaves a blind comparison as it is, though its key does something else too. */
const harmless = ['escape']

/** Every hotkey, from the table of keys. */
export const bindings: Binding[] = keys.flatMap((g) =>
  g.list.flatMap((k) =>
    Object.entries(k.does ?? {}).map(([on, run]) => ({
      on,
      run,
      blind: !!k.blind || harmless.includes(on),
      sign: signs.includes(on),
    })),
  ),
)
