import type { Step } from '../api/types'
import { answer, api, type Waiting } from '../api/client'
import { reached } from '../session/changes'
import { notice, projectId, refused } from '../session/store'
import { work } from '../session/works'

/* What can be done with a step of where a sound comes from. Go knows the steps, and does it. */

const at = (s: Step) => ({ params: { path: { id: projectId(), hash: s.audio } } })
const told = (s: Step, w: Waiting) => ({ ...at(s), signal: w.signal, headers: { 'X-Work': w.work } })

/** Where a sound comes from. */
export const stepsOf = (hash: string) =>
  answer(api.GET('/api/projects/{id}/steps/{hash}', { params: { path: { id: projectId(), hash } } }))

/** Prints it anew from what its row gives now: its clips stay where they are. */
export async function printAgain(s: Step) {
  try {
    const r = await work('Printing again', (w) =>
      answer(api.POST('/api/projects/{id}/steps/{hash}/again', told(s, w))),
    )
    await reached(r.revision)
    notice('Printed again, from what its row gives now.')
  } catch (e) {
    refused(e)
  }
}

/** Lets the chain of its row be as it was when it was printed. */
export async function putChainBack(s: Step) {
  try {
    const r = await answer(api.POST('/api/projects/{id}/steps/{hash}/chain', at(s)))
    await reached(r.revision)
    notice('The chain is as it was when this was printed.')
  } catch (e) {
    refused(e)
  }
}

/** Renders what it would be now, to be heard beside it. */
export const besideNow = (s: Step) =>
  work('Rendering what it would be now', (w) =>
    answer(api.POST('/api/projects/{id}/steps/{hash}/now', told(s, w))),
  )
