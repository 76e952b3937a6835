import type { Speaker } from '../api/types'
import { change } from '../session/changes'
import type { About } from './about'

/* What is said about places. Who said it, and when, is filled in by the server. */

export const make = (about: About, text: string, told: Speaker[]) =>
  change('Say something', { type: 'remark.make', do: { ...about, text, told } })

export const answerTo = (remark: string, text: string, told: Speaker[]) =>
  change('Answer a remark', { type: 'remark.answer', do: { remark, text, told } })

export const settle = (remark: string, settled: boolean) =>
  change(settled ? 'Settle a remark' : 'Open a remark again', {
    type: 'remark.settle',
    do: { remark, settled },
  })

export const remove = (remark: string) => change('Remove a remark', { type: 'remark.remove', do: { remark } })
