/** What the engine's WebAssembly module offers: see cmd/engine. */
export type Exports = {
  mem: WebAssembly.Memory
  room(n: number): number
  textAt(): number
  textLength(): number
  outAt(): number
  levelsAt(): number
  document(n: number, fresh: number): number
  revision(n: number): number
  timeline(): void
  play(): void
  stop(): void
  locate(frame: number, grid: number): void
  anyway(on: number): void
  atEnd(stops: number): void
  fault(): void
  spot(frame: number): number
  trip(): number
  loop(from: number, to: number): void
  measureAgain(): void
  render(): number
  rehearse(): number
  position(): number
  latency(): number
  state(): number
  quiet(): number
  readLevels(): number
  plan(): number
  layout(): void
  broken(): void
  need(frames: number): number
  move(n: number, value: number): number
  hear(n: number): number
  soundings(load: number): void
  waits(): void
  reach(n: number): number
  trace(n: number): number
  page(index: number, frames: number, channels: number): void
  draw(n: number): number
  learn(n: number): number
  try(n: number): number
  listen(n: number): number
  take(n: number, on: number): void
  line(n: number): number
  movables(n: number): number
  thin(n: number): number
  passage(n: number): number
  lineValues(frame: number): void
  trial(n: number): number
  rms(on: number): void
  watch(n: number): void
  spectrum(): number
  costs(): void
}
