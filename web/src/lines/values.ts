import { useEffect, useRef } from 'react'
import type { LineValue } from '../api/types'
import { rests } from '../session/meters'
import { theEngine } from '../session/sound'

/** Asks Go several times a second where the lines stand at the frame that is heard, while anybody looks and anything changes. */
const watchers = new Set<(values: Map<string, LineValue>) => void>()
let timer = 0
let asking = false

async function ask() {
  const engine = theEngine()
  if (!engine || asking) return
  asking = true
  try {
    const values = new Map(
      (await engine.ask('lineValues', { frame: Math.round(engine.heard()?.song ?? 0) })).map((v) => [
        `${v.owner} ${v.name}`,
        v,
      ]),
    )
    for (const w of watchers) w(values)
  } catch {
    // the engine is being made anew
  } finally {
    asking = false
  }
}

/** Calls back with the value of a parameter that has a line, as it moves. */
export function useLineValue(owner: string, name: string, paint: (v: LineValue) => void, on = true) {
  const ref = useRef(paint)
  useEffect(() => {
    ref.current = paint
  })
  useEffect(() => {
    if (!on) return
    const w = (values: Map<string, LineValue>) => {
      const v = values.get(`${owner} ${name}`)
      if (v !== undefined) ref.current(v)
    }
    watchers.add(w)
    if (!timer) timer = window.setInterval(() => void (rests() || ask()), 120)
    void ask()
    return () => {
      watchers.delete(w)
      if (watchers.size === 0) {
        clearInterval(timer)
        timer = 0
      }
    }
  }, [owner, name, on])
}
