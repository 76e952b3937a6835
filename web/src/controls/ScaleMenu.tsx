import { copyText } from '../session/clipboard'
import { said } from './format'
import { Menu } from './Menu'
import { useScaleAt } from './scaleMenu'

/** What can be done to a scale besides moving it; it opens at the scale. */
export function ScaleMenu() {
  const at = useScaleAt((s) => s.at)
  /** The scale has the focus again, before anything that may take it elsewhere. */
  const then = (run?: () => void) => () => {
    at?.focus()
    run?.()
  }
  const to = (v: number) => then(() => at?.set(v))
  const { param, value } = at ?? {}
  return (
    <Menu
      label="Menu of a scale"
      named="scale"
      className="hidden"
      items={
        param
          ? [
              { text: 'Type a value', key: 'Enter', run: then(at?.type) },
              { text: `Back to ${said(param, param.default)}`, key: 'Delete', run: to(param.default) },
              param.unit === 'dB' &&
                param.default !== 0 &&
                param.min <= 0 &&
                param.max >= 0 && { text: 'To 0 dB', key: '0', run: to(0) },
              !!at?.line && {
                text: 'Draw its line',
                key: 'X',
                says: 'How it goes over time, under its row',
                run: then(at.line),
              },
              !!at?.moves && {
                text: 'All that moves it',
                key: 'M',
                says: 'Its line, handles, and movers: set up here, or taken off',
                run: then(at.moves),
              },
              {
                text: 'Copy the value',
                key: 'Ctrl C',
                run: then(() => void copyText(said(param, value!).replace('−', '-'))),
              },
            ]
          : []
      }
    >
      ⋯
    </Menu>
  )
}
