import { useQuery } from '@tanstack/react-query'
import type { RemarkView } from '../api/types'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'

const none: RemarkView[] = []

/** Where every remark is now, and whether it waits for me: as Go says. */
export function useRemarks(): RemarkView[] {
  const id = useSession((s) => s.project?.id)
  const me = useSession((s) => s.me?.id ?? '')
  const shape = useSession((s) => s.shape)
  const any = useSession((s) => !!s.project?.remarks?.length)
  const { data } = useQuery({
    queryKey: ['remarks', id, shape, me],
    queryFn: () => theEngine()!.ask('remarks', { id: me }),
    enabled: any,
    placeholderData: (before) => before,
  })
  return any ? (data ?? none) : none
}
