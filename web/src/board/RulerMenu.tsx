import type { Timeline } from '../api/types'
import { paste } from '../bench/paste'
import { Menu } from '../controls/Menu'
import { openMaker } from '../passages/actions'
import { remarkOn } from '../remarks/about'
import * as sections from '../sections/actions'
import { locate, loopSection, setLoop, togglePlay } from '../session/transport'
import { setView, useViewOf, view } from '../session/view'

/** What can be done at a place of the song; it opens where the ruler was pressed. */
export function RulerMenu({ at, timeline }: { at: number; timeline: Timeline }) {
  const { loop, playing } = useViewOf('loop', 'playing')
  const section = timeline.sections.find((s) => s.from <= at && at < s.to)
  return (
    <Menu
      label="Menu of a place in the song"
      named="ruler"
      className="hidden"
      items={[
        {
          text: 'Play from here',
          run: () => {
            locate(at, view().grid)
            if (!playing) void togglePlay()
          },
        },
        { text: 'Playhead to here', run: () => locate(at, view().grid) },
        !!section && { text: `Loop ${section.name}`, key: 'L', run: () => loopSection(section.id) },
        loop && { text: `Make a passage of ${loop.name}`, key: '⇧L', run: () => openMaker() },
        loop && {
          text: `Say something about ${loop.name}`,
          key: '⇧Z',
          run: () => remarkOn({ at: '', from: Math.round(loop.from), to: Math.round(loop.to) }),
        },
        loop && { text: `Forget ${loop.name}`, run: () => setLoop(null) },
        {
          text: 'Put copied clips down here',
          key: 'Ctrl V',
          run: () => {
            locate(at, view().grid)
            void paste()
          },
        },
        { text: 'Begin a section here', run: () => void sections.begin(at) },
        {
          text: 'Another tempo from here…',
          run: () => {
            locate(at, view().grid)
            setView({ dialog: { kind: 'tempo' } })
          },
        },
        { text: 'Show the whole song', run: () => setView({ zoom: 0, scroll: 0 }) },
      ]}
    >
      ⋯
    </Menu>
  )
}
