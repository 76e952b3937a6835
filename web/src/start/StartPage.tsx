import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { answer, api, download, fileAt, upload } from '../api/client'
import { refused } from '../session/store'
import { Notices } from '../status/Notices'
import { turnTheme } from '../theme/theme'
import { NameGate } from './NameGate'
import { NewProjectForm } from './NewProjectForm'
import { ProjectName } from './ProjectName'

/** All projects: open, make, rename, duplicate, put in the bin and take back. */
export function StartPage() {
  const client = useQueryClient()
  const go = useNavigate()
  const { data, error } = useQuery({
    queryKey: ['projects'],
    queryFn: () => answer(api.GET('/api/projects')),
  })
  const [making, setMaking] = useState(false)
  const [renaming, setRenaming] = useState('')
  const again = () => client.invalidateQueries({ queryKey: ['projects'] })
  const run = (p: Promise<unknown>) => p.then(again, refused)
  const open = (data ?? []).filter((p) => !p.binned)
  const binned = (data ?? []).filter((p) => p.binned)
  return (
    <main className="mx-auto flex h-full max-w-[860px] flex-col overflow-y-auto px-6 py-10">
      <div className="mb-6 flex items-end gap-4">
        <h1 className="text-3xl font-bold">Shoal</h1>
        <p className="soft pb-1">Effects, routing and prints, decided together.</p>
        <button className="btn btn-sm btn-ghost ml-auto" onClick={turnTheme}>
          Day or night
        </button>
      </div>
      <div className="mb-4 flex gap-2">
        <button className="btn btn-primary btn-sm" onClick={() => setMaking(!making)} aria-expanded={making}>
          New project
        </button>
        <label className="btn btn-outline btn-sm">
          Import a bundle
          <input
            type="file"
            accept=".zip"
            className="sr-only"
            onChange={(e) => {
              const f = e.target.files?.[0]
              e.target.value = ''
              if (f) void run(upload('/api/bundles', f))
            }}
          />
        </label>
      </div>
      {making && <NewProjectForm onMade={(p) => void go(`/project/${p.id}`)} />}
      {error && <p role="alert">{error.message}</p>}
      <ul className="flex flex-col">
        {open.map((p) => (
          <li
            key={p.id}
            className="flex items-center gap-3 py-3"
            style={{ borderTop: '1px solid var(--hair)' }}
          >
            {renaming === p.id ? (
              <ProjectName
                project={p}
                onDone={() => {
                  setRenaming('')
                  void again()
                }}
              />
            ) : (
              <Link
                to={`/project/${p.id}`}
                className="min-w-0 flex-1 truncate text-head font-semibold hover:underline"
              >
                {p.name}
              </Link>
            )}
            <span className="soft figure text-small">
              changed {new Date(p.changed).toLocaleString()} · revision {p.revision}
            </span>
            <button className="btn btn-xs btn-ghost" onClick={() => setRenaming(p.id)}>
              Rename
            </button>
            <button
              className="btn btn-xs btn-ghost"
              onClick={() =>
                void run(api.POST('/api/projects/{id}/copies', { params: { path: { id: p.id } } }))
              }
            >
              Duplicate
            </button>
            <button
              className="btn btn-xs btn-ghost"
              onClick={() =>
                void download(fileAt('/api/projects/{id}/bundle', { path: { id: p.id } })).catch(refused)
              }
            >
              Export bundle
            </button>
            <button
              className="btn btn-xs btn-ghost"
              onClick={() => void run(api.DELETE('/api/projects/{id}', { params: { path: { id: p.id } } }))}
            >
              To the bin
            </button>
          </li>
        ))}
        {data && open.length === 0 && (
          <li className="soft py-4">There is no project yet. Make one, or import a bundle.</li>
        )}
      </ul>
      {binned.length > 0 && (
        <section className="mt-8">
          <h2 className="soft mb-1 font-bold">In the bin</h2>
          <ul>
            {binned.map((p) => (
              <li
                key={p.id}
                className="flex items-center gap-3 py-2"
                style={{ borderTop: '1px solid var(--hair)' }}
              >
                <span className="soft flex-1">{p.name}</span>
                <button
                  className="btn btn-xs btn-ghost"
                  onClick={() =>
                    void run(api.POST('/api/projects/{id}/restore', { params: { path: { id: p.id } } }))
                  }
                >
                  Take it back
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <div className="mt-4">
        <Notices />
      </div>
      <NameGate asks={false} />
    </main>
  )
}
