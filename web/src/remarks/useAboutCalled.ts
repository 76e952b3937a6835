import { useQuery } from '@tanstack/react-query'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'
import type { About } from './about'

/** What it is called that a remark would be about: as Go says. */
export function useAboutCalled(about: About): string {
  const shape = useSession((s) => s.shape)
  const { data } = useQuery({
    queryKey: ['called', about, shape],
    queryFn: () => theEngine()!.ask('called', { param: '', ...about }),
  })
  return data?.called ?? '…'
}
