import type { DragEvent } from 'react'
import type { Channel } from '../api/types'
import { insertFork } from '../bench/forks'
import { chosen, copyTo, moveTo } from '../bench/several'
import { addStage } from '../bench/stages'
import { forkOf } from '../effects/forks'
import { copySend } from '../routing/gestures'
import { drop as dropPreset } from '../presets/actions'
import { rowOf } from '../session/selected'
import { notice, useSession } from '../session/store'
import { moveWayIn, putWayIn } from '../takes/wayIn'
import { moveLine, putLine } from '../waterline/line'

/** What is being dragged over the board: a stage, an effect or a preset from a list, a row, a send, a line, a thing from the
    shelf, or a file. */
type Load = {
  stages?: string[]
  effect?: string
  preset?: string
  row?: string
  send?: string
  line?: string
  wayIn?: string
  thing?: string
}

let load: Load | null = null

export function carry(e: DragEvent, what: Load) {
  load = what
  e.dataTransfer.effectAllowed = 'copyMove'
  e.dataTransfer.setData(
    'text/plain',
    what.stages?.join(' ') ??
      what.effect ??
      what.preset ??
      what.row ??
      what.send ??
      what.line ??
      what.wayIn ??
      what.thing ??
      '',
  )
  e.stopPropagation()
}

/** Drags a stage, and with it the others that are selected. */
export function carryStage(e: DragEvent, stage: string) {
  const all = chosen()
  carry(e, { stages: all.includes(stage) ? all : [stage] })
}

document.addEventListener('dragend', () => (load = null))

/** Something that can stand in a chain, and how it gets there. */
export function carried(e: DragEvent): { drop: (owner: string, index: number) => void } | null {
  const now = load
  if (!now || (!now.stages && !now.effect && !now.preset && !now.send && !now.line && !now.wayIn)) return null
  const off = e.shiftKey
  const copy = e.ctrlKey || e.metaKey
  return {
    drop: (owner, index) => {
      const row = rowOf(owner)
      if (now.send && row) void copySend(now.send, [row], off)
      if (now.stages) void (copy ? copyTo : moveTo)(now.stages, owner, index)
      if (now.line) dropMark(now.line, owner, index, moveLine, putLine)
      if (now.wayIn) dropMark(now.wayIn, owner, index, moveWayIn, putWayIn)
      if (now.preset) void dropPreset(now.preset, owner, index)
      const fork = now.effect ? forkOf(now.effect) : null
      if (fork) void insertFork(fork.kind, fork.bands, owner, index)
      const effect = useSession.getState().effects.find((x) => x.id === now.effect)
      if (effect) void addStage(effect, owner, index, off)
    },
  }
}

/** A mark is dropped between nodes of its own row's chain; on a path it comes to stand behind the fork. */
function dropMark(
  of: string,
  owner: string,
  index: number,
  move: (row: Channel, count: number) => unknown,
  put: (node: string) => unknown,
) {
  const row = rowOf(owner)
  if (row?.id !== of)
    return notice('This mark belongs to its row: drop it somewhere along that chain.', 'refused')
  if (owner === of) move(row, index)
  else put(owner)
}

/** The effect from the list that is being dragged. */
export const carriedEffect = () =>
  useSession.getState().effects.find((x) => x.id === load?.effect && x.version === x.newest)

/** The thing from the shelf that is being dragged. */
export const carriedThing = () => load?.thing

/** The preset that is being dragged. */
export const carriedPreset = () => load?.preset

/** What lets a stage take what is dropped on it: before it on its left half, behind it on its right. */
export const besides = (owner: string, index: number) => ({
  onDragOver: (e: DragEvent) => carried(e) && e.preventDefault(),
  onDrop: (e: DragEvent) => {
    const c = carried(e)
    if (!c) return
    e.preventDefault()
    e.stopPropagation()
    const box = e.currentTarget.getBoundingClientRect()
    c.drop(owner, e.clientX > box.left + box.width / 2 ? index + 1 : index)
  },
})

export const carriedRow = () => load?.row ?? null
