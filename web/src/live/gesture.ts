/* What belongs together: all that is changed from a press of a pointer until it is let go, and all that one key
   changes at once. It is one entry of the logbook and one undo. */

const fresh = () => crypto.randomUUID().slice(0, 18)
let pressed = ''
let burst = ''

addEventListener('pointerdown', () => (pressed = fresh()), true)
for (const end of ['pointerup', 'pointercancel'] as const)
  addEventListener(
    end,
    () => {
      const ended = pressed
      setTimeout(() => pressed === ended && (pressed = '')) // what the press does is done by then
    },
    true,
  )

/** The gesture under way. */
export function gesture(): string {
  if (pressed) return pressed
  if (!burst) {
    burst = fresh()
    queueMicrotask(() => (burst = ''))
  }
  return burst
}
