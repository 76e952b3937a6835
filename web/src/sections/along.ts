import { setView, view } from '../session/view'

/** Asked once whether lines and passages go along with what is moved; then it is remembered. */
export function along(run: (along: boolean) => void) {
  const known = view().along
  if (known !== null) return run(known)
  setView({ dialog: { kind: 'along', run } })
}
