const steps: [Intl.RelativeTimeFormatUnit, number][] = [
  ['day', 86400],
  ['hour', 3600],
  ['minute', 60],
]

/** How long ago something was, in the reader's language; what is older than a week by its date. */
export function ago(time: string, now = Date.now()): string {
  const seconds = (now - new Date(time).getTime()) / 1000
  if (seconds > 7 * 86400) return new Date(time).toLocaleDateString([], { dateStyle: 'medium' })
  const [unit, of] = steps.find(([, of]) => seconds >= of) ?? ['second', 1]
  if (unit === 'second') return 'just now'
  return new Intl.RelativeTimeFormat(undefined, { numeric: 'auto' }).format(-Math.floor(seconds / of), unit)
}
