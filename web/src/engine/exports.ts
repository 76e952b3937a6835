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
  prepare(): void
  tidy(): void
  adopt(): number
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
  ask(n: number): number
  ready(n: number): number
  record(on: number): void
  taken(n: number): number
  takenAt(): number
  arriving(): void
  feed(frames: number): void
  lead(from: number, frames: number): number
  click(on: number, level: number): void
  countIn(bars: number): void
  counting(): number
  move(n: number, value: number): number
  hear(n: number): number
  soundings(load: number): void
  page(index: number, frames: number, channels: number): void
  try(n: number): number
  listen(n: number): number
  take(n: number, on: number): void
  worked(n: number): void
  trial(n: number): number
  rms(on: number): void
  watch(n: number): void
  spectrum(): number
  costs(): void
}
