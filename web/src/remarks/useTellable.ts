import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../api/client'
import type { Speaker } from '../api/types'
import { useSession } from '../session/store'

/** Whom something can be said to: who is in the project, who is here, and who has said something; not oneself. */
export function useTellable(): Speaker[] {
  const id = useSession((s) => s.project!.id)
  const turn = useSession((s) => s.crew)
  const me = useSession((s) => s.me?.id)
  const here = useSession((s) => s.people)
  const remarks = useSession((s) => s.project!.remarks)
  const { data } = useQuery({
    queryKey: ['crew', id, turn],
    queryFn: () => answer(api.GET('/api/projects/{id}/crew', { params: { path: { id } } })),
  })
  const found = new Map<string, string>()
  for (const r of remarks ?? []) for (const s of r.said) found.set(s.by.person, s.by.name)
  for (const p of here) found.set(p.person.id, p.person.name)
  for (const m of data?.people ?? []) found.set(m.person.id, m.person.name)
  return [...found].filter(([person]) => person && person !== me).map(([person, name]) => ({ person, name }))
}
