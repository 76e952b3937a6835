import { Instead } from '../versions/Instead'
import { Along } from '../crew/Along'
import { LastChange } from '../crew/Here'
import { RoleSays } from '../crew/RoleSays'
import { Unsafe } from '../takes/Unsafe'
import { Listening } from './Listening'
import { Notices } from './Notices'
import { Pointed } from './Pointed'
import { PrintItems } from './PrintItems'
import { Protection } from './Protection'

/** The line at the foot of the window: what is heard, what is under way, and what there is to say. It has room of its
    own, so that nothing of it ever lies over a control. */
export function StatusLine() {
  return (
    <footer
      aria-label="Status"
      className="flex min-h-6 shrink-0 flex-wrap items-center gap-x-3 px-3 text-label"
      style={{ borderTop: '1px solid var(--hair)', background: 'var(--paper)' }}
    >
      <Protection />
      <Along />
      <Instead />
      <Listening />
      <RoleSays />
      <Pointed />
      <PrintItems />
      <Unsafe />
      <Notices />
      <LastChange />
    </footer>
  )
}
