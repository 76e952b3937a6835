import type { Path } from '../api/types'
import { carried } from '../board/carry'
import { Depth } from '../controls/Depth'
import { NameField } from '../controls/NameField'
import { ParamControl } from '../controls/ParamControl'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { type Drawn, Nodes } from './Braid'
import { StrandChip } from './StrandChip'
import { Wire } from './Wire'
import { HEAD, LINE, strandHeight } from './braid'
import { listenToPath, setPath } from './forks'

/** One path: its name, its level and listening on the strand; open, its stages hang below with their plumbs. */
export function Strand({ path, channel, off, open }: { path: Path } & Drawn) {
  const selected = useView((v) => v.stage === path.id)
  const nodes = path.chain.nodes
  const whole = open(path) && nodes.length > 0
  const end = <Depth point={`path ${path.id}`} title={`Level at the end of ${path.name}`} />
  return (
    <span
      className="flex flex-col rounded-[6px]"
      style={{
        height: strandHeight(path, open),
        background: selected ? 'color-mix(in srgb, var(--shoal-3) 28%, transparent)' : undefined,
      }}
      onDragOver={(e) => carried(e) && e.preventDefault()}
      onDrop={(e) => {
        const c = carried(e)
        if (!c) return
        e.preventDefault()
        e.stopPropagation()
        c.drop(path.id, nodes.length)
      }}
    >
      <span className="flex shrink-0 items-center [&>.depth]:-translate-y-1.5" style={{ height: HEAD }}>
        {!whole && <Wire />}
        <StrandHead path={path} channel={channel} selected={selected} />
        {!whole &&
          nodes.map((n, i) => (
            <span key={(n.stage ?? n.fork!).id} className="flex items-center">
              <Wire />
              <StrandChip
                node={n}
                channel={channel}
                owner={path.id}
                index={i}
                off={off || path.chain.bypass}
              />
            </span>
          ))}
        {!whole && <Wire grow />}
        {!whole && end}
      </span>
      {whole && (
        <span className="relative flex items-start">
          <span
            className="pointer-events-none absolute inset-x-0 h-px"
            style={{ top: LINE, background: 'var(--deep)' }}
          />
          <Nodes
            nodes={nodes}
            owner={path.id}
            channel={channel}
            off={off || path.chain.bypass}
            open={open}
            beside
          />
          <span className="flex h-9 relative grow items-center [&>.depth]:-translate-y-2.5">
            <span className="ml-auto" />
            {end}
          </span>
        </span>
      )}
    </span>
  )
}

function StrandHead({
  path,
  channel,
  selected,
}: {
  path: Path
  channel: Drawn['channel']
  selected: boolean
}) {
  const listened = useView((v) => v.listening?.paths?.includes(path.id) ?? false)
  const renaming = useView((v) => v.renaming === path.id)
  const strip = useSession((s) => s.strip)
  return (
    <span className="flex items-center gap-1.5 px-1">
      {renaming ? (
        <NameField
          name={path.name}
          label="Name of the path"
          onName={(name) => void setPath(path, { name }, 'Rename')}
        />
      ) : (
        <button
          className="h-6 min-w-[44px] px-1 text-left text-label font-semibold whitespace-nowrap"
          style={{ textDecoration: path.mute ? 'line-through' : undefined }}
          aria-pressed={selected}
          aria-label={`Path ${path.name}${path.mute ? ', muted' : ''}${listened ? ', listened to' : ''}`}
          title={`${path.name}. Double click names it.`}
          onClick={() => select(channel.id, path.id)}
          onDoubleClick={() => setView({ renaming: path.id })}
        >
          {path.name}
        </button>
      )}
      {strip && (
        <span className="w-[126px]">
          <ParamControl
            owner={path.id}
            param={strip.path}
            value={path.level}
            of={path.name}
            label={`Level on the strand ${path.name}`}
            narrow
          />
        </span>
      )}
      <button
        className="water-label h-6 px-1 text-small"
        style={{ fontWeight: listened ? 700 : 400, textDecoration: listened ? 'underline' : undefined }}
        aria-pressed={listened}
        aria-label={`Listen to the strand ${path.name}`}
        title="Hear only this path ( V ); with Shift besides others"
        onClick={(e) => listenToPath(path.id, e.shiftKey)}
      >
        {listened ? 'heard' : 'listen'}
      </button>
    </span>
  )
}
