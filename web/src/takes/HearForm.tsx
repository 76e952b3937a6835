import { session } from '../session/store'
import { FigureLine } from './FigureLine'
import { hearLevel } from './hearing'

/** How loud one hears oneself, in dB. */
export const HearForm = () => (
  <FigureLine
    name="How loud"
    label="How loud you hear yourself, in dB"
    shown={() => String(session().hearLevel).replace('-', '−')}
    take={(text) => {
      const db = Number(text)
      if (text !== '' && db > -60 && db <= 12) hearLevel(db)
    }}
    says="dB, for you only"
  />
)
