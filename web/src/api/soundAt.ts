/** Where a sound of a project is fetched: a page of its samples, or its overview. */
export const soundAt = (project: string, hash: string, part: `pcm/${number}` | 'overview') =>
  `/api/projects/${project}/audio/${hash}/${part}`
