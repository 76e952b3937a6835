import { setView, useView } from '../session/view'
import { FigureLine } from './FigureLine'
import { ownDelay } from './own'

/** What is taken off what arrives at the window's own input, in ms: as the browser says, or typed. */
export function DelayForm() {
  const typed = useView((v) => v.inputDelay)
  return (
    <FigureLine
      name="Takes off"
      label="Delay that is taken off, in ms"
      shown={() => (ownDelay() * 1000).toFixed(1)}
      take={(text) => {
        const ms = Number(text)
        if (text === '') setView({ inputDelay: -1 })
        else if (ms >= 0 && ms <= 2000) setView({ inputDelay: ms })
      }}
      says={`ms ${typed < 0 ? '(as the browser says)' : '(typed; empty: as the browser says)'}`}
    />
  )
}
