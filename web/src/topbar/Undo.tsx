import { useState } from 'react'
import { answer, api } from '../api/client'
import { takeBack } from '../session/changes'
import { projectId } from '../session/store'

const keys = { undo: 'Ctrl Z', redo: 'Ctrl Shift Z' }

/** Undo or redo; under the pointer it says before what it would take back, and what stands against that. */
export function Undo({ which }: { which: 'undo' | 'redo' }) {
  const [says, setSays] = useState('')
  const look = () =>
    answer(
      api.GET('/api/projects/{id}/undo', {
        params: { path: { id: projectId() }, query: { redo: which === 'redo' ? '1' : undefined } },
      }),
    ).then(
      (u) =>
        setSays(
          u.label
            ? [
                `${which === 'undo' ? 'Takes back' : 'Makes again'} your “${u.label}”`,
                u.passed.length && `but passes it over: ${u.passed.join('; ')}`,
              ]
                .filter(Boolean)
                .join(', ')
            : `There is nothing of yours to ${which}`,
        ),
      () => undefined,
    )
  return (
    <button
      className="btn btn-xs btn-ghost px-1.5 font-normal"
      onClick={() => void takeBack(which)}
      onPointerEnter={() => void look()}
      onFocus={() => void look()}
      title={`${says || (which === 'undo' ? 'Undo your last change' : 'Redo')} (${keys[which]})`}
    >
      {which === 'undo' ? 'Undo' : 'Redo'}
    </button>
  )
}
