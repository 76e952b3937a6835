/* What belongs together: all that is changed from a press of a pointer until it is let go, and all that one key
   changes at once. It is one entry of the logbook and one undo. */

const fresh = () => crypto.randomUUID().slice(0, 18)
let pressed = ''
let burst = ''

const letGo = () => {
  const ended = pressed
  setTimeout(() => pressed === ended && (pressed = '')) // what the press does is done by then
}
const modifiers = ['Shift', 'Alt', 'Control', 'Meta']

window.addEventListener('pointerdown', () => (pressed = fresh()), true)
window.addEventListener('pointerup', letGo, true)
window.addEventListener('pointercancel', letGo, true)
// let go outside the window, nothing of it is heard here but that no button is held any more, or that a key is pressed
window.addEventListener('pointermove', (e) => e.buttons === 0 && pressed && letGo(), true)
window.addEventListener('keydown', (e) => !modifiers.includes(e.key) && (pressed = ''), true)

/** The gesture under way. */
export function gesture(): string {
  if (pressed) return pressed
  if (!burst) {
    burst = fresh()
    queueMicrotask(() => (burst = ''))
  }
  return burst
}
