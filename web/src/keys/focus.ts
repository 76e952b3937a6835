import { view } from '../session/view'

/* One key leads from a stage to its scales and back: Enter and Escape; with Shift to its plumbs. */

const stageElement = (id: string) =>
  document.querySelector<HTMLElement>(`[aria-label="Bench"] [data-node="${id}"]`) ??
  document.querySelector<HTMLElement>(`[data-stage="${id}"], [data-fork="${id}"]`)

/** The focus goes to a stage or fork that has just come, as soon as it stands there: Enter leads on to its scales. Who has
    gone on to something else by then is not called back. */
export function focusOn(id: string) {
  requestAnimationFrame(() => {
    const elsewhere =
      view().dialog || document.activeElement?.matches('input, textarea, select, [role=slider]')
    if (!elsewhere && view().stage === id) stageElement(id)?.focus({ preventScroll: true })
  })
}

/** From the selected stage, fork or path to its first scale. */
export function enterScales(): boolean {
  const panel = document.querySelector(`[data-panel="${view().stage}"]`)
  const first =
    panel?.querySelector<HTMLElement>('[data-says] [role=slider]') ??
    panel?.querySelector<HTMLElement>('[role=slider], select, input')
  first?.focus()
  return !!first
}

/** From the selected stage to the first of its plumbs. */
export function enterPlumbs(): boolean {
  const first = document.querySelector<SVGElement>(`[data-plumb="${view().stage}"]`)
  first?.focus()
  return !!first
}

/** From a plumb, or a scale of a panel on the bench, back to what the panel is of. */
export function leaveForStage(from: Element): boolean {
  const id = from.getAttribute('data-plumb') ?? from.closest<HTMLElement>('[data-panel]')?.dataset.panel
  const to = id && stageElement(id)
  if (!to) return false
  to.focus()
  return true
}
