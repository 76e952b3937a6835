import { SLOTS, STAMP, STATE } from './ring'

/** The levels that belong to a place in the ring, -1 where there are none: the last that were stamped before it;
    where all are later, as while the output's own delay has not passed yet, those that come next. While nothing
    flows out of the ring, and the song stands or waits, the place says nothing: the newest count. */
export function stampAt(stamps: Float64Array, place: number, flows: boolean): number {
  let best = -1
  let age = 0
  let newest = -1
  for (let s = 0; s < SLOTS; s++) {
    const write = stamps[s * STAMP.size + STAMP.write]!
    if (Number.isNaN(write) || stamps[s * STAMP.size + STAMP.layout] === 0) continue
    const a = place - write
    if (newest < 0 || turnOf(stamps, s) > turnOf(stamps, newest)) newest = s
    if (best < 0 || nearer(a, age) || (a === age && turnOf(stamps, s) > turnOf(stamps, best))) {
      best = s
      age = a
    }
  }
  const stands = newest >= 0 && stamps[newest * STAMP.size + STAMP.state] !== STATE.playing
  return !flows && stands ? newest : best
}

/** The levels that were stamped last, -1 where there are none: where the engine stands, heard or not. */
export function newestStamp(stamps: Float64Array): number {
  let newest = -1
  for (let s = 0; s < SLOTS; s++)
    if (turnOf(stamps, s) > 0 && (newest < 0 || turnOf(stamps, s) > turnOf(stamps, newest))) newest = s
  return newest
}

const turnOf = (stamps: Float64Array, s: number) => stamps[s * STAMP.size + STAMP.turn]!

/** How much later than its place a stamp may be: it is of the block that is heard. */
const BLOCK = 1024

/** Those that have been heard before those that have not; of either, the nearest. */
function nearer(a: number, b: number) {
  if (a >= -BLOCK) return b < -BLOCK || a < b
  return b < -BLOCK && a > b
}
