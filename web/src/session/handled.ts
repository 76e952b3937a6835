/* What this window's hands moved last, the latest first: lists of parameters begin with it. */

const latest: string[] = []
const MOST = 40

export function handled(key: string) {
  if (latest[0] === key) return
  const at = latest.indexOf(key)
  if (at >= 0) latest.splice(at, 1)
  latest.unshift(key)
  latest.length = Math.min(latest.length, MOST)
}

/** How long ago a parameter was moved: 0 for the latest, Infinity where no hand was. */
export function ago(owner: string, name: string): number {
  const at = latest.indexOf(`${owner} ${name}`)
  return at < 0 ? Infinity : at
}
