/** The control that a dialog begins with: one that is marked, else the first that takes a value, else the first that is
    pressed; what puts it away stands outside its body. */
export function firstIn(box: Element | null): HTMLElement | null {
  const body = box?.querySelector('[data-body]')
  return (
    body?.querySelector<HTMLElement>('[data-first]') ??
    body?.querySelector<HTMLElement>('input, select, textarea, [role=slider]') ??
    body?.querySelector<HTMLElement>('button, a[href]') ??
    null
  )
}
