import type { Project } from '../api/types'

/* What a revision says otherwise than the one before: rows and lines, of which there may be very many, only where they are not
   the same objects (project.Revision in Go reads it). */

export function revisionOf(known: Project, now: Project) {
  return {
    rest: { ...now, channels: [], lines: [] },
    rows: others(known.channels, now.channels),
    lines: others(known.lines, now.lines),
  }
}

const others = <T>(known: T[], now: T[]) => ({
  count: now.length,
  changed: now.flatMap((is, at) => (is === known[at] ? [] : [{ at, is }])),
})
