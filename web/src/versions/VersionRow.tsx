import { useState } from 'react'
import { useNavigate } from 'react-router'
import { answer, api } from '../api/client'
import type { Version } from '../api/types'
import { Menu } from '../controls/Menu'
import { NameField } from '../controls/NameField'
import { when } from '../crew/HandedOver'
import { refused, useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { Differences } from './Differences'
import { hearNow, hearVersion } from './hearing'

type Props = { of: Version; run: (what: Promise<unknown>) => Promise<unknown>; may: boolean }

/** A version: heard against now, what has changed since, and the rest. */
export function VersionRow({ of: v, run, may }: Props) {
  const id = useSession((s) => s.project!.id)
  const heard = useSession((s) => s.instead?.id === v.id)
  const [open, setOpen] = useState(false)
  const renaming = useView((x) => x.renaming === v.id)
  const go = useNavigate()
  const params = { path: { id, version: v.id } }
  const anew = () =>
    answer(
      api.POST('/api/projects/{id}/versions/{version}/copies', {
        params,
        body: { name: `${useSession.getState().project!.name}, ${v.name}`.slice(0, 80) },
      }),
    ).then((p) => void go(`/project/${p.id}`), refused)
  return (
    <li
      className="rounded border p-2"
      style={{ borderColor: heard ? 'var(--ink)' : 'var(--hair)', background: 'var(--paper)' }}
    >
      <div className="flex items-center gap-2">
        <span className="min-w-0 grow leading-tight">
          {renaming ? (
            <NameField
              label="Name of the version"
              name={v.name}
              onName={(name) =>
                void run(answer(api.PUT('/api/projects/{id}/versions/{version}', { params, body: { name } })))
              }
            />
          ) : (
            <b className="block truncate">{v.name}</b>
          )}
          <span className="soft block truncate text-small">
            {v.by.name}, {when(v.created)}
          </span>
        </span>
        <span className="join" role="group" aria-label={`Hear ${v.name} or now`}>
          <button
            className={`btn btn-sm join-item font-normal ${heard ? 'btn-primary' : 'btn-outline'}`}
            aria-pressed={heard}
            onClick={() => !heard && void hearVersion(v)}
          >
            Then
          </button>
          <button
            className={`btn btn-sm join-item font-normal ${heard ? 'btn-outline' : 'btn-primary'}`}
            aria-pressed={!heard}
            onClick={hearNow}
          >
            Now
          </button>
        </span>
        <button
          className="btn btn-sm btn-outline font-normal"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          What changed
        </button>
        <Menu
          label={`Menu of the version ${v.name}`}
          className="btn btn-sm btn-ghost px-1.5"
          items={[
            { text: 'Begin a new project from it', run: () => void anew() },
            may && { text: 'Rename', run: () => setView({ renaming: v.id }) },
            may && {
              text: 'Forget its name',
              run: () => void run(answer(api.DELETE('/api/projects/{id}/versions/{version}', { params }))),
            },
          ]}
        >
          ⋯
        </Menu>
      </div>
      {open && <Differences of={v} may={may} />}
    </li>
  )
}
