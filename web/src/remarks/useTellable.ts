import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../api/client'
import type { Speaker } from '../api/types'
import { useSession } from '../session/store'

const none: Speaker[] = []

/** Whom something can be said to: who is in the project, who is here, and who has said something; not oneself. */
export function useTellable(): Speaker[] {
  const id = useSession((s) => s.project!.id)
  const turn = useSession((s) => s.crew)
  const here = useSession((s) => s.people.map((p) => p.person.id).join())
  const said = useSession((s) => s.project!.remarks?.length ?? 0)
  const { data } = useQuery({
    queryKey: ['crew', id, turn, here, said],
    queryFn: () => answer(api.GET('/api/projects/{id}/crew', { params: { path: { id } } })),
    placeholderData: (before) => before,
  })
  return data?.tellable ?? none
}
