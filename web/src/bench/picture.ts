import { useEffect, useState } from 'react'
import type { Fork, Picture, Stage } from '../api/types'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'

/** A stage's picture, drawn by Go, and drawn again when its values move. */
export const useStagePicture = (stage: Stage) =>
  usePicture(stage.id, `${stage.effect} ${JSON.stringify(stage.params)}`)

/** The picture of a fork: how it divides. */
export const useForkPicture = (fork: Fork) => {
  const owners = [fork.id, ...fork.paths.map((p) => p.id)]
  const values = [fork.slope, fork.linear, fork.crossovers, fork.paths.map((p) => [p.level, p.mute, p.name])]
  return usePicture(fork.id, JSON.stringify(values), owners)
}

function usePicture(id: string, values: string, owners: string[] = [id]): Picture | null {
  const [picture, setPicture] = useState<Picture | null>(null)
  const ready = useSession((s) => (s.timeline ? 1 : 0))
  const tried = useSession((s) => s.tried)
  const moving = useSession((s) => {
    let key = ''
    for (const [k, v] of Object.entries(s.moving))
      if (owners.some((o) => k.startsWith(o))) key += `${k}=${v};`
    return key
  })
  useEffect(() => {
    let current = true
    void theEngine()
      ?.ask('draw', { id: id })
      .then((p) => current && setPicture(p))
      // a stage may go while its picture is asked for: then there is nothing to draw
      .catch(() => undefined)
    return () => {
      current = false
    }
  }, [id, values, moving, ready, tried])
  return picture
}

/** The plumbs under a stage, as Go chose them; while a hand moves something of it, they stay as they were. */
export function useHanging(stage: Stage, picture: Picture | null) {
  const held = useSession((s) => Object.keys(s.moving).some((k) => k.startsWith(stage.id)))
  const [now, setNow] = useState(picture?.plumbs)
  if (!held && picture && now !== picture.plumbs) setNow(picture.plumbs)
  return now
}
