import { useEffect, useRef } from 'react'
import type { Channel, Project, Timeline } from '../api/types'
import { rowIn } from '../document/rows'
import { LitPath, useReach } from '../routing/LitPath'
import { useTrace } from '../routing/traced'
import { TracedPath } from '../routing/TracedPath'
import { useView, useViewOf } from '../session/view'
import { BoardFoot } from './BoardFoot'
import { heights } from './heights'
import { useNear } from './near'
import { Row } from './Row'

/** The groups that a row goes through, the nearest first. */
function groupsOf(project: Project, c: Channel): string[] {
  const up = rowIn(project, c.output)
  return up?.kind === 'group' ? [up.id, ...groupsOf(project, up)] : []
}

/** The rows that are not hidden or folded away, with the ways between them, and what stands below. */
export function Rows({
  project,
  timeline,
  width,
}: {
  project: Project
  timeline: Timeline | null
  width: number
}) {
  const { showHidden, folded, tide, rowHeight, lines, airs, channel, benchHeight } = useViewOf(
    'showHidden',
    'folded',
    'tide',
    'rowHeight',
    'lines',
    'airs',
    'channel',
    'benchHeight',
  )
  const asked = useView((v) => v.dialog?.kind)
  const reach = useReach()
  const trace = useTrace()
  const box = useRef<HTMLDivElement>(null)
  const shown = project.channels.filter(
    (c) => (showHidden || !c.hidden) && !groupsOf(project, c).some((g) => folded.includes(g)),
  )
  const high = (c: Channel) => heights(tide, rowHeight, airs[c.id], lines[c.id]?.length ?? 0).all
  const { from, to, above, below, bring } = useNear(box, shown.map(high))
  const place = shown.findIndex((c) => c.id === channel)
  useEffect(() => {
    // what is spoken of stays in sight, also when the bench or its lines need more room
    const row = channel && box.current?.querySelector(`[data-row="${channel}"]`)
    if (row) row.scrollIntoView({ block: 'nearest' })
    else if (place >= 0) bring(place)
    // eslint-disable-next-line react-hooks/exhaustive-deps -- not when other rows change
  }, [channel, benchHeight, asked, lines[channel]])
  const lit = (c: Channel) => {
    if (trace) return trace.ways.some((w) => w.steps.some((x) => x.channel === c.id)) ? 'fed' : ''
    return reach.feeds.includes(c.id) ? 'fed' : reach.fed.includes(c.id) ? 'feeds' : ''
  }
  return (
    <div
      ref={box}
      className="relative flex min-h-0 flex-1 flex-col overflow-x-hidden overflow-y-auto"
      // an opaque ground lets the browser scroll what is painted, instead of painting it anew
      style={{ background: 'var(--paper)' }}
    >
      {trace ? (
        <TracedPath trace={trace} rows={shown} height={high} />
      ) : (
        <LitPath reach={reach} rows={shown} height={high} />
      )}
      <Room high={above} />
      {shown.slice(from, to).map((c) => (
        <Row
          key={c.id}
          channel={c}
          index={project.channels.indexOf(c)}
          timeline={timeline}
          width={width}
          depth={groupsOf(project, c).length}
          lit={lit(c)}
        />
      ))}
      <Room high={below} />
      <BoardFoot hidden={project.channels.filter((c) => c.hidden).length} />
    </div>
  )
}

/** What rows that are not drawn keep. */
const Room = ({ high }: { high: number }) =>
  high > 0 && <div className="shrink-0" style={{ height: high, overflowAnchor: 'none' }} />
