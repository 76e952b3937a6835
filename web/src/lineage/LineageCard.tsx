import { useQuery } from '@tanstack/react-query'
import { Card } from '../controls/Card'
import { useSession } from '../session/store'
import { stepsOf } from './actions'
import { StepView } from './StepView'

/** Where the sound of a clip comes from: step by step back to what was there first, and whether each still holds. */
export function LineageCard({ clip }: { clip: string }) {
  const revision = useSession((s) => s.revision)
  const found = useSession((s) => s.project!.channels.flatMap((c) => c.clips).find((x) => x.id === clip))
  const audio = found?.audio ?? ''
  const { data, error } = useQuery({
    queryKey: ['steps', audio, revision],
    queryFn: () => stepsOf(audio),
    placeholderData: (before) => before,
    enabled: audio !== '',
    retry: false,
  })
  return (
    <Card title="Where it comes from" width={560}>
      <p className="soft mb-2 text-small">{found?.name ?? 'The clip is no longer there.'}</p>
      {error && <p className="text-small">{error.message}</p>}
      {data && (
        <ul aria-label="Steps, the newest first">
          <StepView step={data} first />
        </ul>
      )}
      {data?.kind === 'source' && (
        <p className="soft mt-2 text-small">It was not printed here: nothing lies before it.</p>
      )}
    </Card>
  )
}
