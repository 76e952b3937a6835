import type { Channel, Project, StemPlan } from '../api/types'

type Props = {
  project: Project
  rows: string[]
  plan: StemPlan | undefined
  onRows: (rows: string[]) => void
}

/** The rows that can become files, with what their files would be called. */
export function StemRows({ project, rows, plan, onRows }: Props) {
  const main = project.channels.find((c) => c.kind === 'main')
  const take = (which: (c: Channel) => boolean) => () =>
    onRows(project.channels.filter(which).map((c) => c.id))
  const some = 'btn btn-xs btn-outline font-normal'
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5">
        <button type="button" className={some} onClick={take((c) => c.output === main?.id)}>
          All that feed {main?.name}
        </button>
        <button type="button" className={some} onClick={take((c) => c.kind === 'track')}>
          Every track
        </button>
        <button type="button" className={some} onClick={take((c) => c.kind === 'main')}>
          The mix
        </button>
        <button type="button" className={some} onClick={take(() => false)}>
          None
        </button>
      </div>
      <ul
        className="max-h-[212px] min-h-0 overflow-y-auto border"
        style={{ borderColor: 'var(--hair)' }}
        aria-label="Rows that become files"
      >
        {project.channels.map((c) => {
          const files = plan?.files.filter((f) => f.channel === c.id) ?? []
          const on = rows.includes(c.id)
          return (
            <li key={c.id}>
              <label className="flex min-h-6 items-center gap-2 px-2 py-0.5">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={on}
                  onChange={() => onRows(on ? rows.filter((r) => r !== c.id) : [...rows, c.id])}
                />
                <span className="w-[120px] shrink-0 truncate">{c.name}</span>
                <span
                  className="soft figure min-w-0 truncate text-small"
                  title={files.map((f) => f.name).join(', ')}
                >
                  {files.map((f) => f.name).join(', ')}
                </span>
              </label>
            </li>
          )
        })}
      </ul>
    </>
  )
}
