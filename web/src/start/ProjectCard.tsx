import { useState } from 'react'
import { Link } from 'react-router'
import { api, download, fileAt } from '../api/client'
import type { Listed } from '../api/types'
import { Menu } from '../controls/Menu'
import { refused } from '../session/store'
import { Chart, ChartNames } from './Chart'
import { figures } from './listed'
import { ProjectName } from './ProjectName'
import { ago } from './when'

type Props = {
  project: Listed
  /** Does something, and then reads the list anew. */
  run: (what: Promise<unknown>) => unknown
}

/** A project as a small chart of itself, with who changed it last and who is there now. */
export function ProjectCard({ project: p, run }: Props) {
  const [renaming, setRenaming] = useState(false)
  const at = { params: { path: { id: p.id } } }
  const here = p.here.map((x) => x.name || 'somebody without a name')
  return (
    <li
      className="relative flex flex-col rounded border"
      style={{ borderColor: 'var(--hair)', background: 'var(--card)' }}
    >
      <div className="relative overflow-hidden rounded-t" style={{ borderBottom: '1px solid var(--hair)' }}>
        {p.chart ? (
          <>
            <Chart of={p.chart} />
            <ChartNames of={p.chart} />
          </>
        ) : (
          <div className="h-[104px]" />
        )}
      </div>
      <div className="flex items-start gap-2 p-3">
        <div className="min-w-0 flex-1">
          {renaming ? (
            <ProjectName
              project={p}
              onDone={() => {
                setRenaming(false)
                void run(Promise.resolve())
              }}
            />
          ) : (
            <Link
              to={`/project/${p.id}`}
              className="block min-h-6 truncate text-head leading-6 font-semibold after:absolute after:inset-0 hover:underline"
            >
              {p.name}
            </Link>
          )}
          <p className="figure text-small">{figures(p)}</p>
          <p className="soft truncate text-small" title={new Date(p.changed).toLocaleString()}>
            {p.by ? `changed by ${p.by}, ` : 'made '}
            {ago(p.changed)}
          </p>
          {here.length > 0 && (
            <p className="truncate text-small font-semibold" style={{ color: 'var(--live)' }}>
              ● here now: {here.join(', ')}
            </p>
          )}
        </div>
        <span className="relative z-10">
          <Menu
            label={`What can be done to ${p.name}`}
            className="btn btn-sm btn-ghost btn-square"
            items={[
              { text: 'Rename', run: () => setRenaming(true) },
              { text: 'Duplicate', run: () => void run(api.POST('/api/projects/{id}/copies', at)) },
              {
                text: 'Export bundle',
                says: 'One file with the project and all of its sound, to keep or to pass on.',
                run: () => void download(fileAt('/api/projects/{id}/bundle', at.params)).catch(refused),
              },
              { text: 'To the bin', run: () => void run(api.DELETE('/api/projects/{id}', at)) },
            ]}
          >
            ⋯
          </Menu>
        </span>
      </div>
    </li>
  )
}
