import { answer, api, Refused } from '../api/client'
import type { Change } from '../api/types'
import { gesture } from './gesture'
import { catchUp } from './live'
import { theEngine } from './sound'
import { notice, projectId, refused, session, setSession, useSession } from './store'

/* Changes are asked of the server; they come back as a revision, here and in every other window. */

/** What a person does one after the other reaches the server in that order. */
let before: Promise<unknown> = Promise.resolve()
function inOrder<T>(ask: () => Promise<T>): Promise<T> {
  const mine = before.then(ask, ask)
  before = mine.catch(() => undefined)
  return mine
}

let tellHands: () => void = () => undefined
/** Says what tells the server of what a hand has moved and still holds back: it goes before whatever is done next, or an undo
    would take back the wrong thing. */
export const onNext = (tell: () => void) => (tellHands = tell)

/** Asks for changes. They come back as a revision, here and in every other window. */
export const change = (label: string, ...changes: Change[]) => changeIn(gesture(), label, ...changes)

/** The same as a part of a gesture that began earlier. */
export const changeIn = (gesture: string, label: string, ...changes: Change[]) =>
  make({ label, changes, gesture })

/** The status of an answer where somebody has in hand what would be changed (RFC 9110, section 15.5.10). */
const IN_HAND = 409

async function make(body: {
  label: string
  changes: Change[]
  gesture: string
  anyway?: boolean
}): Promise<boolean> {
  tellHands()
  try {
    const asked = { params: { path: { id: projectId() } }, body }
    const r = await inOrder(() => answer(api.POST('/api/projects/{id}/changes', asked)))
    if (session().full) setSession({ full: false })
    await reached(r.revision)
    return true
  } catch (e) {
    if (e instanceof Refused && e.status === IN_HAND)
      notice(e.message, 'refused', {
        text: 'I have asked: change it',
        run: () => void make({ ...body, anyway: true }),
      })
    else refused(e)
    return false
  }
}

/** How long a revision may take over the live connection before it is asked for, in ms. */
const PATIENCE = 200

/** Resolves when a revision has arrived, asking for it if the live connection is slow. */
export async function reached(revision: number) {
  if (session().revision >= revision) return
  await new Promise<void>((arrived) => {
    const late = setTimeout(done, PATIENCE)
    const stop = useSession.subscribe((s) => s.revision >= revision && done())
    function done() {
      clearTimeout(late)
      stop()
      arrived()
    }
  })
  if (session().revision < revision) await catchUp()
}

export async function takeBack(which: 'undo' | 'redo') {
  tellHands()
  try {
    const asked = { params: { path: { id: projectId() } } }
    const r = await inOrder(() => answer(api.POST(`/api/projects/{id}/${which}`, asked)))
    for (const p of r.passed ?? []) notice(p, 'refused')
    notice(`${which === 'undo' ? 'Undone' : 'Redone'}: ${r.label}`)
    await reached(r.revision)
  } catch (e) {
    refused(e)
  }
}

/** Lets changes be heard without making them; none ends it. */
export async function tryChanges(changes: Change[]) {
  await theEngine()?.try(changes)
  setSession((s) => ({ tried: s.tried + 1 }))
}
