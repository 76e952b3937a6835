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

/** Puts something on the clipboard, and says so. */
export async function keep(what: Exclude<Copied, { format: 'text' }>, says: string) {
  try {
    await navigator.clipboard.writeText(JSON.stringify(what))
    notice(says)
  } catch {
    notice('The browser does not let Shoal write to the clipboard.', 'refused')
  }
}

/** What lies on the clipboard. */
export async function kept(text?: string): Promise<Copied> {
  const t = text ?? (await navigator.clipboard.readText().catch(() => ''))
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
