import { useEffect, useState } from 'react'
import type { Picture, Stage } from '../api/types'
import { theEngine, useSession } from './session'

/** A stage's picture, drawn by Go, and drawn again when its values move. */
export function usePicture(stage: Stage): Picture | null {
  const [picture, setPicture] = useState<Picture | null>(null)
  const values = JSON.stringify(stage.params)
  const revision = useSession((s) => (s.timeline ? 1 : 0))
  const tried = useSession((s) => s.tried)
  const moving = useSession((s) => {
    let key = ''
    for (const [k, v] of Object.entries(s.moving)) if (k.startsWith(stage.id)) key += `${k}=${v};`
    return key
  })
  useEffect(() => {
    let current = true
    void theEngine()
      ?.draw(stage.id)
      .then((p) => current && p && setPicture(p))
    return () => {
      current = false
    }
  }, [stage.id, stage.effect, values, moving, revision, tried])
  return picture
}
