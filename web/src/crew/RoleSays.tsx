import { useSession } from '../session/store'

/** What somebody may not do here, before they try. */
export function RoleSays() {
  const role = useSession((s) => s.role)
  if (role !== 'listener') return null
  return (
    <span className="border-l-2 pl-2" style={{ borderColor: 'var(--deep)' }}>
      You are a listener here: you hear, look and remark; engineers change.
    </span>
  )
}
