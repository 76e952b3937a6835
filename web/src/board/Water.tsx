import type { Channel, Node } from '../api/types'
import { Depth } from '../controls/Depth'
import { along, idOf, shownChain } from '../document/chain'
import { select } from '../session/selected'
import { setView, useView } from '../session/view'
import { Diamond } from '../soundings/Diamond'
import { useBlind } from '../trials/actions'
import { Fold } from './Fold'
import { NodeChip } from './NodeChip'
import { Plate } from './Plate'
import { HANDLE, ShownHandles, useShownHandles } from './ShownHandles'
import { RowOut, STRIP } from './RowOut'
import { carried } from './carry'
import { foldTo } from './fold'
import { holds, lineIndex, UNDER, useLineWork } from '../waterline/line'
import { Waterline } from '../waterline/Waterline'

/** The least that a row's signal takes; in a narrower window the water is moved sideways. */
const LEAST = 780

/** What is under the surface: stage after stage with depth figures between, then level, sends and output. */
export function Water({ channel, width }: { channel: Channel; width: number }) {
  const trials = useView((v) => v.trials)
  const blind = useBlind(channel.id)
  const { owner, chain, letter } = shownChain(channel, trials)
  const nodes = blind ? [] : chain.nodes
  const line = blind ? -1 : lineIndex(channel)
  const printed = holds(useLineWork(channel.id))
  const room = Math.max(width, LEAST) - STRIP - 64 - HANDLE * useShownHandles(channel).length
  const { full, from, count } = foldTo(nodes, room)
  return (
    <div
      className={`absolute inset-x-0 bottom-0 ${width < LEAST ? 'overflow-x-auto overflow-y-hidden [scrollbar-width:none]' : ''}`}
    >
      <div className="flex h-[27px] items-center" style={{ minWidth: LEAST }}>
        <div
          className="relative flex h-full min-w-0 flex-1 items-center pl-2"
          data-chain={channel.id}
          onDragOver={(e) => carried(e) && e.preventDefault()}
          onDrop={(e) => {
            const c = carried(e)
            if (!c) return
            e.preventDefault()
            c.drop(owner, nodes.length)
          }}
          onDoubleClick={(e) =>
            e.target === e.currentTarget &&
            setView({
              dialog: { kind: 'effects', owner, index: nodes.length },
              channel: channel.id,
            })
          }
        >
          <span
            className="pointer-events-none absolute inset-x-0 top-1/2 h-px"
            style={{ background: 'var(--deep)' }}
          />
          <span className="relative flex min-w-0 items-center gap-1">
            <Plate>
              <Depth
                point={`in ${channel.id}`}
                title="Level at the input"
                place={{ owner, index: 0, node: '' }}
              />
            </Plate>
            {blind && (
              <Plate>
                <span className="water-label text-small">compared blind</span>
              </Plate>
            )}
            {channel.trials.length > 0 && !blind && (
              <Plate>
                <span
                  className="water-label text-small font-semibold"
                  title={`Trial ${letter} is heard; Y for the next`}
                >
                  {letter}
                </span>
              </Plate>
            )}
            {nodes.map((n, i) =>
              i >= from && i < from + count ? (
                i === from ? (
                  <Fold
                    key="fold"
                    nodes={nodes.slice(from, from + count)}
                    first={from}
                    channel={channel.id}
                    owner={owner}
                  />
                ) : null
              ) : (
                <span
                  key={idOf(n)}
                  className="flex items-center gap-1"
                  style={printed && i <= line ? UNDER : undefined}
                >
                  <NodeChip
                    node={n}
                    channel={channel.id}
                    owner={owner}
                    index={i}
                    chainOff={chain.bypass}
                    size={full ? 'full' : 'small'}
                  />
                  <Diamond at={[...along([n])].map(idOf).concat(pathsOf(n))} />
                  <Plate>
                    <Depth point={`after ${idOf(n)}`} place={{ owner, index: i + 1, node: idOf(n) }} />
                  </Plate>
                  {i === line && <Waterline channel={channel} height={26} />}
                </span>
              ),
            )}
            {!blind && (
              <button
                className="group grid h-6 w-6 shrink-0 place-items-center"
                aria-label={`Add a stage to ${channel.name}`}
                title="Add a stage ( / )"
                onClick={(e) => {
                  e.stopPropagation()
                  select(channel.id)
                  setView({ dialog: { kind: 'effects', owner, index: nodes.length } })
                }}
              >
                <span
                  className="grid h-[18px] w-[18px] place-items-center rounded-full border text-label leading-none opacity-60 group-hover:opacity-100 group-focus:opacity-100"
                  style={{ borderColor: 'var(--deep)', color: 'var(--deep)', background: 'var(--shoal-1)' }}
                >
                  +
                </span>
              </button>
            )}
          </span>
          <ShownHandles channel={channel} />
        </div>
        <RowOut channel={channel} />
      </div>
    </div>
  )
}

const pathsOf = (n: Node): string[] => [...along([n])].flatMap((x) => x.fork?.paths.map((p) => p.id) ?? [])
