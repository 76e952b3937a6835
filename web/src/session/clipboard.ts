import type { Fields, Line, Node } from '../api/types'
import { notice } from './store'

/* What is copied goes to the clipboard of the system, whatever it is: what was copied last is what is pasted. */

/** Points of a line, for this or another parameter. */
export type KeptPoints = { of: { owner: string; name: string }; points: Line['points'] }

/** Clips with their sounds and treatments, for this or another project. */
export type KeptClips = Omit<Fields<'clips.paste'>, 'row' | 'at' | 'snap'>

export type Copied =
  | { format: 'shoal clips 1'; kept: KeptClips }
  | { format: 'shoal chain 1'; nodes: Node[] }
  | { format: 'shoal points 1'; lines: KeptPoints[] }
  | { format: 'text'; text: string }

/** What this window copied last: pasted where the browser has no clipboard for Shoal, as without https elsewhere than at home. */
let own = ''

/** Puts something on the clipboard, and says so. */
export async function keep(what: Exclude<Copied, { format: 'text' }>, says: string) {
  const shared = await copyText(JSON.stringify(what))
  notice(shared ? says : `${says} In this window only: the browser keeps its clipboard to itself.`)
}

/** Puts a text on the clipboard; false: it is kept in this window only. */
export async function copyText(text: string): Promise<boolean> {
  own = text
  try {
    await navigator.clipboard.writeText(text)
    return true
  } catch {
    return false
  }
}

/** The clipboard of the system, or what this window copied where that cannot be read. */
async function read(): Promise<string> {
  try {
    return await navigator.clipboard.readText()
  } catch {
    return own
  }
}

/** What lies on the clipboard. */
export async function kept(text?: string): Promise<Copied> {
  const t = text ?? (await read())
  try {
    const parsed = JSON.parse(t) as { format?: string; nodes?: unknown; lines?: unknown }
    if (parsed.format === 'shoal chain 1' && Array.isArray(parsed.nodes)) return parsed as Copied
    if (parsed.format === 'shoal clips 1' && 'kept' in parsed) return parsed as Copied
    if (parsed.format === 'shoal points 1' && Array.isArray(parsed.lines)) return parsed as Copied
  } catch {
    // no JSON: a value, or something of another program
  }
  return { format: 'text', text: t }
}
