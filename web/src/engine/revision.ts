import type { Project } from '../api/types'

/* What a revision says otherwise than the one before: of rows and lines, of which there may be very many, only which are at
   another place, and which are no objects of before (project.Revision in Go reads it). */

export function revisionOf(known: Project, now: Project) {
  return {
    rest: { ...now, channels: [], lines: [] },
    rows: others(known.channels, now.channels),
    lines: others(known.lines, now.lines),
  }
}

type Other<T> = { at: number; was: number } | { at: number; is: T }

function others<T>(known: T[], now: T[]) {
  const before = new Map(known.map((x, at) => [x, at]))
  const changed: Other<T>[] = []
  now.forEach((is, at) => {
    if (is === known[at]) return
    const was = before.get(is)
    changed.push(was === undefined ? { at, is } : { at, was })
  })
  return { count: now.length, changed }
}
