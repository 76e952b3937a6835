import { clearMarks } from '../controls/Depth'
import { Menu } from '../controls/Menu'
import { listenTo, showDepth } from '../session/listening'
import { rowOf } from '../session/selected'
import { useSession } from '../session/store'
import { setView, useViewOf } from '../session/view'
import { toggleWayIn } from '../takes/wayIn'
import { toggleLine } from '../waterline/line'

/** What can be done at a place in a chain, where a figure stands; it opens at the figure. */
export function PlaceMenu() {
  const { place, depth } = useViewOf('place', 'depth')
  const row = useSession((s) => s.project?.channels.find((c) => c.id === place?.owner))
  const own = row && place?.node // forks and treatments have neither a line nor a way in
  const behind = row?.waterline === place?.node
  return (
    <Menu
      label="Menu of a place in the chain"
      named="place"
      className="hidden"
      items={[
        {
          text: 'Add a stage here',
          key: '/',
          run: () =>
            setView({
              channel: rowOf(place!.owner)?.id ?? '',
              dialog: { kind: 'effects', owner: place!.owner, index: place!.index },
            }),
        },
        !!place?.node && {
          text: 'Hear the chain up to here',
          key: 'J',
          run: () => listenTo(place.node, false),
        },
        !!own && {
          text: behind ? 'Lift the line: nothing is printed' : 'Print what stands before, behind the music',
          key: 'P',
          run: () => void toggleLine(place.node),
        },
        !!own &&
          row.kind === 'track' && {
            text:
              row.wayIn === place.node ? 'Record the bare input again' : 'Record through what stands before',
            key: '⇧I',
            run: () => void toggleWayIn(place.node),
          },
        {
          text: depth === 'peak' ? 'Show mean levels' : 'Show peaks',
          key: '⇧E',
          run: () => showDepth(depth === 'peak' ? 'rms' : 'peak'),
        },
        { text: 'Clear what is held', key: 'E', run: clearMarks },
      ]}
    >
      ⋯
    </Menu>
  )
}
