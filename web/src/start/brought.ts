/* Sound that was brought to the list of projects: the project that is made for it takes it in when it opens. */

let waiting: { id: string; files: File[] } | null = null

export const bring = (id: string, files: File[]) => (waiting = { id, files })

/** What was brought for a project; once. */
export function broughtFor(id: string): File[] {
  if (waiting?.id !== id) return []
  const { files } = waiting
  waiting = null
  return files
}
