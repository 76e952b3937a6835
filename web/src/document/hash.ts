import canonicalize from 'canonicalize'
import type { Channel, Line, Project } from '../api/types'

/* What tells a document from any other: the SHA-256 of the sums of its parts in their canonical form (RFC 8785),
   as Go works it out (project.Written.Hash). */

type Part = Channel | Line

const sums = new WeakMap<Part, Promise<Uint8Array<ArrayBuffer>>>()

const sumOf = async (part: unknown) =>
  new Uint8Array(await crypto.subtle.digest('SHA-256', new TextEncoder().encode(canonicalize(part))))

/** A row or line that no change has touched is the same object still, and its sum is known. */
function sumOfPart(p: Part): Promise<Uint8Array<ArrayBuffer>> {
  const known = sums.get(p) ?? sumOf(p)
  sums.set(p, known)
  return known
}

/** The hash of a document; null where the page may not reckon one (it is no secure context). */
export async function hashOf(p: Project): Promise<string | null> {
  if (!globalThis.crypto?.subtle) return null
  const parts = [await sumOf({ ...p, channels: null, lines: null })]
  // one after the other: of a large document the first time takes long, and the page must be drawn meanwhile
  for (const part of [...p.channels, ...p.lines]) parts.push(await sumOfPart(part))
  const all = new Uint8Array(parts.length * 32)
  parts.forEach((s, i) => all.set(s, i * 32))
  const sum = new Uint8Array(await crypto.subtle.digest('SHA-256', all))
  return [...sum].map((b) => b.toString(16).padStart(2, '0')).join('')
}
