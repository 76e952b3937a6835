import type { Channel, Project } from '../api/types'

const byId = new WeakMap<Channel[], Map<string, Channel>>()

/** A row by its id. Every row of very many asks for those that it leads to, whenever anything has changed. */
export function rowIn(project: Project | null, id: string | undefined): Channel | undefined {
  if (!project || !id) return undefined
  let rows = byId.get(project.channels)
  if (!rows) byId.set(project.channels, (rows = new Map(project.channels.map((c) => [c.id, c]))))
  return rows.get(id)
}
