import { remarkOn } from '../remarks/about'
import type { Channel, LineView } from '../api/types'
import { paste } from '../bench/paste'
import { Menu } from '../controls/Menu'
import { opens } from '../controls/menuAt'
import type { Lens } from '../document/time'
import { notice, useSession } from '../session/store'
import { setView, type Stretch, useView } from '../session/view'
import { RemarkOn } from '../remarks/RemarkMark'
import { LineSettings } from './LineSettings'
import { LineValueAt } from './LineValueAt'
import * as lines from './actions'
import { selectAll } from './select'
import { STRIP_HEIGHT } from './face'
import { useLine } from './useLine'

type Props = { channel: Channel; owner: string; name: string; lens: Lens; width: number }

/** The head of a line, beside it under the head of its row. */
export function LineHead(p: Props) {
  const v = useLine(p.owner, p.name, p.channel.id, p.lens, p.width)
  return (
    <div
      style={{ height: STRIP_HEIGHT, borderTop: '1px dotted var(--hair)' }}
      onContextMenu={opens(`line ${p.owner} ${p.name}`)}
    >
      {v && <Told v={v} channel={p.channel} />}
    </div>
  )
}

/** What it moves, where it stands, and what can be done with it and what is selected of it. */
function Told({ v, channel }: { v: LineView; channel: Channel }) {
  const any = useView((s) => s.stretch)
  const stretch = any?.owner === v.owner && any.name === v.name ? any : null
  const taken = useSession((s) => s.takingDown.includes(`${v.owner} ${v.name}`))
  const ticks = stretch?.ticks ?? []
  const some = (run: (s: Stretch) => unknown) => () => {
    if (!stretch || stretch.to <= stretch.from) return notice('Select a stretch first: drag along the line.')
    void run(stretch)
  }
  const points = (run: () => unknown) => () => {
    if (!ticks.length) return notice('Select points first: click one, or drag along the line.')
    void run()
  }
  const span = [v.low, v.high] as const
  const switches = v.param.taper === 'switch' || v.param.taper === 'choice'
  const menu = (
    <Menu
      label={`Menu of the line of ${lines.labelOf(v)}`}
      named={`line ${v.owner} ${v.name}`}
      className="soft h-[24px] min-w-[24px] leading-none"
      items={[
        { text: 'Fold it', run: () => lines.foldLine(channel.id, `${v.owner} ${v.name}`) },
        {
          text: 'Say something about it',
          run: () =>
            remarkOn({
              at: v.owner,
              param: v.name,
              from: stretch ? Math.round(stretch.from) : 0,
              to: stretch ? Math.round(stretch.to) : 0,
            }),
        },
        {
          text: 'Type the value of the points',
          key: stretch?.drawn ? undefined : '⏎',
          run: points(() => lines.typeValue(v, stretch!, true)),
        },
        ...(switches
          ? []
          : (['ramp', 'smooth', 'curve', 'step'] as const).map((shape) => ({
              text: `Go on from the points by ${shape === 'smooth' ? 'a gentle S' : `a ${shape}`}`,
              run: points(() => lines.setPoints(v, ticks, { shape })),
            }))),
        {
          text: 'Hold a value over the stretch',
          key: stretch?.drawn ? '⏎' : undefined,
          run: some((s) => lines.typeValue(v, s, false)),
        },
        {
          text: 'Fill with a value on the grid',
          run: some((s) => lines.fillStretch(v, s, 'value', ...span, 0)),
        },
        { text: 'Fill rising', run: some((s) => lines.fillStretch(v, s, 'rise', ...span, 0)) },
        {
          text: 'Fill by chance (again: another throw)',
          run: some((s) => lines.fillStretch(v, s, 'chance', ...span, Date.now() % 100000)),
        },
        ...['rise', 'fall', 'pulse', 'tremble', 'stair'].map((kind) => ({
          text: `Draw a ${kind}`,
          run: some((s) => lines.shapeStretch(v, s, kind, ...span)),
        })),
        {
          text: 'Thin out…',
          run: some((s) => setView({ dialog: { kind: 'thin', v, stretch: s } })),
        },
        { text: 'Reverse', run: some((s) => lines.turnStretch(v, s, 'reverse')) },
        { text: 'Half as far', run: some((s) => lines.turnStretch(v, s, 'scale', 0.5)) },
        { text: 'Half as far again', run: some((s) => lines.turnStretch(v, s, 'scale', 1.5)) },
        {
          text: 'Select it in all open lines of the row',
          key: 'Ctrl A',
          run: () => void selectAll(v, channel.id),
        },
        { text: 'Copy the points', key: 'Ctrl C', run: () => lines.copyPoints(v, ticks) },
        { text: 'Put points down at the playhead', key: 'Ctrl V', run: () => void paste({ line: v }) },
        { text: 'Take the points off', key: 'Del', run: points(() => lines.cutPoints(v, ticks)) },
        {
          text: 'Remove the line',
          run: () =>
            void lines.removeLine(v).then((ok) => ok && lines.foldLine(channel.id, `${v.owner} ${v.name}`)),
        },
      ]}
      foot={() => <LineSettings />}
    >
      ⋯
    </Menu>
  )
  return (
    <>
      <div
        className="line-clamp-2 pt-[2px] text-small leading-[13px]"
        title={`${lines.labelOf(v)}. ${v.param.says}`}
      >
        <RemarkOn node={`${v.owner} ${v.name}`} /> {lines.labelOf(v)}
      </div>
      <div className="flex h-[18px] items-center gap-1.5">
        <LineValueAt v={v} />
        {taken && (
          <span className="text-small whitespace-nowrap" style={{ color: 'var(--live)' }}>
            taken down
          </span>
        )}
        <span className="ml-auto">{menu}</span>
      </div>
    </>
  )
}
