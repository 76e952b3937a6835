import createClient, { createFinalURL, createQuerySerializer, defaultPathSerializer } from 'openapi-fetch'
import type { paths } from './schema'

/** A refusal of the server, in its own words. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message)
  }
}

/** Somebody did not want to wait any longer. */
export class Cancelled extends Error {
  constructor() {
    super('Cancelled: nothing has changed.')
  }
}

const unreachable = () => new Refused('The server cannot be reached. Is Shoal still running?', 0)

async function refusal(r: Response): Promise<Refused> {
  try {
    return new Refused(((await r.json()) as { detail: string }).detail, r.status)
  } catch {
    return new Refused(`The server answered ${r.status}.`, r.status) // no problem document: the status must do
  }
}

let askName: () => Promise<boolean> = () => Promise.resolve(false)
/** Says who asks for a name when a change lacks one. */
export const onNameless = (ask: () => Promise<boolean>) => (askName = ask)

/** Whether a request is the one by which somebody says who they are: what is wrong with it is said where it is made. */
const provesIt = (request: Request) => new URL(request.url).pathname === '/api/session'

/** Asks; where a name is missing it is asked for, and then the request goes through. */
async function reach(request: Request): Promise<Response> {
  try {
    const r = await fetch(request.clone())
    return r.status === 401 && !provesIt(request) && (await askName()) ? await fetch(request) : r
  } catch {
    throw request.signal.aborted ? new Cancelled() : unreachable()
  }
}

/** The server's operations, each with its path, what it takes and what it answers, as Go describes them. */
export const api = createClient<paths>({ fetch: reach, baseUrl: location.origin })
api.use({
  onResponse: async ({ response }) => {
    if (!response.ok) throw await refusal(response)
  },
})

/** What was answered; a refusal is thrown. */
export const answer = <T>(of: Promise<{ data?: T }>): Promise<T> => of.then((r) => r.data as T)

/** How a request may be waited for: until somebody has enough, and under a name by which the server tells how
    far it is. */
export type Waiting = { signal?: AbortSignal; work?: string }

/** A request that is waited for in that way. */
export const waiting = ({ signal, work }: Waiting) => ({ signal, headers: work ? { 'X-Work': work } : {} })

type Operation = { parameters: { path?: object; query?: object } }
type Of<P> = P extends { parameters: { path?: infer A; query?: infer Q } }
  ? (A extends object ? { path: A } : object) & (Q extends object ? { query: Q } : object)
  : object

type Addressed<V extends 'get' | 'post'> = {
  [P in keyof paths]: paths[P][V] extends Operation ? P : never
}[keyof paths]

const address = (path: string, params: object) =>
  createFinalURL(path, {
    baseUrl: '',
    params,
    querySerializer: createQuerySerializer(),
    pathSerializer: defaultPathSerializer,
  })

/** Where a file is fetched. */
export const fileAt = <P extends Addressed<'get'>>(path: P, params: Of<paths[P]['get']>) =>
  address(path, params)

/** Where a file is sent. */
export const takerAt = <P extends Addressed<'post'>>(path: P, params: Of<paths[P]['post']>) =>
  address(path, params)

/** Sends a file as the body, with progress from 0 to 1 and a way to stop. */
export async function upload(
  url: string,
  file: Blob,
  progress: (part: number) => void = () => undefined,
  signal?: AbortSignal,
): Promise<unknown> {
  let r = await send(url, file, progress, signal)
  if (r.status === 401 && (await askName())) r = await send(url, file, progress, signal)
  if (!r.ok) throw await refusal(r)
  return r.json()
}

function send(
  url: string,
  file: Blob,
  progress: (part: number) => void,
  signal?: AbortSignal,
): Promise<Response> {
  return new Promise((resolve, reject) => {
    const x = new XMLHttpRequest()
    x.open('POST', url)
    x.upload.onprogress = (e) => progress(e.lengthComputable ? e.loaded / e.total : 0)
    x.onerror = () => reject(new Refused('The upload broke off. Try again.', 0))
    x.onabort = () => reject(new Refused('The upload was cancelled.', 0))
    x.onload = () => resolve(new Response(x.responseText || '{}', { status: x.status }))
    signal?.addEventListener('abort', () => x.abort())
    x.send(file)
  })
}

/** Fetches a file and saves it under the name that the server gives it: only when all of it has come. */
export async function download(url: string) {
  const r = await fetch(url).catch(() => Promise.reject(unreachable()))
  if (!r.ok) throw await refusal(r)
  let file: Blob
  try {
    file = await r.blob()
  } catch {
    throw new Refused('The download broke off before it was whole: nothing was saved. Try again.', 0)
  }
  const name = /filename="([^"]*)"/.exec(r.headers.get('Content-Disposition') ?? '')?.[1]
  saveAs(file, name ?? 'shoal')
}

/** Hands a file to the person, under a name. */
export function saveAs(file: Blob, name: string) {
  const a = document.createElement('a')
  a.href = URL.createObjectURL(file)
  a.download = name
  a.click()
  setTimeout(() => URL.revokeObjectURL(a.href), 60_000)
}
