/** A refusal of the server, in its own words. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message)
  }
}

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

async function ask<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  let r: Response
  try {
    r = await fetch(path, {
      method,
      headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
      body: body === undefined ? undefined : JSON.stringify(body),
      signal,
    })
  } catch {
    throw new Refused('The server cannot be reached. Is Shoal still running?', 0)
  }
  return answer<T>(r)
}

export const get = <T>(path: string, signal?: AbortSignal) => ask<T>('GET', path, undefined, signal)
export const post = <T>(path: string, body?: unknown) => ask<T>('POST', path, body)
export const put = <T>(path: string, body?: unknown) => ask<T>('PUT', path, body)
export const remove = <T>(path: string) => ask<T>('DELETE', path)

/** Sends a file as the body, with progress from 0 to 1 and a way to stop. */
export function upload<T>(
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
