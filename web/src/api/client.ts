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

/** How a request may be waited for: until somebody has enough, and under a name by which the server tells how
    far it is. */
export type Waiting = { signal?: AbortSignal; work?: string }

async function answer<T>(r: Response): Promise<T> {
  if (r.ok) return (await r.json()) as T
  let detail = `The server answered ${r.status}.`
  try {
    detail = ((await r.json()) as { detail: string }).detail
  } catch {
    // not a problem document: the status must do
  }
  throw new Refused(detail, r.status)
}

let askName: () => Promise<boolean> = () => Promise.resolve(false)
/** Says who asks for a name when a change lacks one. */
export const onNameless = (ask: () => Promise<boolean>) => (askName = ask)

/** Does something that wants a name; where that is missing it is asked for, and then it goes through. */
async function named<T>(run: () => Promise<T>): Promise<T> {
  try {
    return await run()
  } catch (e) {
    if (e instanceof Refused && e.status === 401 && (await askName())) return run()
    throw e
  }
}

const ask = <T>(method: string, path: string, body?: unknown, w: Waiting = {}): Promise<T> =>
  named(() => once<T>(method, path, body, w))

async function once<T>(method: string, path: string, body: unknown, w: Waiting): Promise<T> {
  let r: Response
  try {
    r = await fetch(path, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...(w.work ? { 'X-Work': w.work } : {}),
      },
      body: body === undefined ? undefined : JSON.stringify(body),
      signal: w.signal,
    })
  } catch {
    if (w.signal?.aborted) throw new Cancelled()
    throw new Refused('The server cannot be reached. Is Shoal still running?', 0)
  }
  return answer<T>(r)
}

export const get = <T>(path: string, w?: Waiting) => ask<T>('GET', path, undefined, w)
export const post = <T>(path: string, body?: unknown, w?: Waiting) => ask<T>('POST', path, body, w)
export const put = <T>(path: string, body?: unknown) => ask<T>('PUT', path, body)
export const remove = <T>(path: string) => ask<T>('DELETE', path)

/** Sends a file as the body, with progress from 0 to 1 and a way to stop. */
export const upload = <T>(
  path: string,
  file: Blob,
  progress: (part: number) => void,
  signal?: AbortSignal,
): Promise<T> => named(() => send<T>(path, file, progress, signal))

function send<T>(
  path: string,
  file: Blob,
  progress: (part: number) => void,
  signal?: AbortSignal,
): Promise<T> {
  return new Promise((resolve, reject) => {
    const x = new XMLHttpRequest()
    x.open('POST', path)
    x.upload.onprogress = (e) => progress(e.lengthComputable ? e.loaded / e.total : 0)
    x.onerror = () => reject(new Refused('The upload broke off. Try again.', 0))
    x.onabort = () => reject(new Refused('The upload was cancelled.', 0))
    x.onload = () =>
      answer<T>(new Response(x.responseText || '{}', { status: x.status })).then(resolve, reject)
    signal?.addEventListener('abort', () => x.abort())
    x.send(file)
  })
}

/** Fetches a file and saves it under the name that the server gives it: only when all of it has come. */
export async function download(path: string) {
  let r: Response
  try {
    r = await fetch(path)
  } catch {
    throw new Refused('The server cannot be reached. Is Shoal still running?', 0)
  }
  if (!r.ok) await answer(r)
  let file: Blob
  try {
    file = await r.blob()
  } catch {
    throw new Refused('The download broke off before it was whole: nothing was saved. Try again.', 0)
  }
  const name = /filename="([^"]*)"/.exec(r.headers.get('Content-Disposition') ?? '')?.[1]
  const a = document.createElement('a')
  a.href = URL.createObjectURL(file)
  a.download = name ?? 'shoal'
  a.click()
  setTimeout(() => URL.revokeObjectURL(a.href), 60_000)
}
