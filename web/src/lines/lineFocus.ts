/* A line that was asked for has the focus as soon as it is drawn: keys go on from there. */

let wanted = ''

/** A line is to have the focus, now or when it has come. */
export function focusLine(key: string) {
  const there = document.querySelector<SVGElement>(`[data-line="${key}"]`)
  if (there) there.focus({ preventScroll: true })
  wanted = there ? '' : key
}

/** Gives a line that has just been drawn the focus, if it is the one that was asked for. */
export function drawn(key: string, line: SVGElement) {
  if (key !== wanted) return
  wanted = ''
  line.focus({ preventScroll: true })
}
