import { answer, api } from '../api/client'
import type { Summary } from '../api/types'
import { refused } from '../session/store'

/** Renames a project where it stands in the list. */
export function ProjectName({ project, onDone }: { project: Summary; onDone: () => void }) {
  const save = async (name: string) => {
    try {
      const me = await answer(api.GET('/api/me'))
      if (!me.id) await api.PUT('/api/me', { body: { name: 'Somebody' } })
      await api.POST('/api/projects/{id}/changes', {
        params: { path: { id: project.id } },
        body: { label: 'Rename the project', changes: [{ type: 'project.set', do: { name } }] },
      })
    } catch (e) {
      refused(e)
    }
    onDone()
  }
  return (
    <input
      autoFocus
      className="input input-sm flex-1"
      aria-label="Name of the project"
      defaultValue={project.name}
      onFocus={(e) => e.target.select()}
      onBlur={onDone}
      onKeyDown={(e) => {
        const name = e.currentTarget.value.trim()
        if (e.key === 'Escape') onDone()
        if (e.key === 'Enter' && name) void save(name)
      }}
    />
  )
}
