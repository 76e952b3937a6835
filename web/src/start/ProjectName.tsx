import { get, post, put } from '../api/client'
import type { Person, Summary } from '../api/types'
import { refused } from '../live/session'

/** Renames a project where it stands in the list. */
export function ProjectName({ project, onDone }: { project: Summary; onDone: () => void }) {
  const save = async (name: string) => {
    try {
      const me = await get<Person>('/api/me')
      if (!me.id) await put('/api/me', { name: 'Somebody' })
      await post(`/api/projects/${project.id}/changes`, {
        label: 'Rename the project',
        changes: [{ type: 'project.set', do: { name } }],
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
