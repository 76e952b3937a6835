import type { Handle, Mover, Param } from '../api/types'
import { Card } from '../controls/Card'
import { said } from '../controls/format'
import { findNode } from '../document/chain'
import { openLine } from '../lines/actions'
import { useSession } from '../session/store'
import { setView } from '../session/view'
import { HandlePart } from './HandlePart'
import { HandleSettings } from './HandleSettings'
import { MoverPart } from './MoverPart'
import * as moves from './actions'

/** Everything that moves one parameter, in the order in which it counts: a hand, a line or a handle gives the
    base; movers add around it; the range is the end. */
export function MovesCard({ owner, param, label }: { owner: string; param: Param; label: string }) {
  const project = useSession((s) => s.project)!
  const line = project.lines.find((l) => l.owner === owner && l.name === param.name)
  const handle = moves.handleOf(project, owner, param.name)
  const movers = moves.moversOf(project, owner, param.name)
  const own = (project.handles ?? []).find((h) => h.id === owner)
  const stage = findNode(project, owner)?.node.stage
  return (
    <Card title={`What moves ${label}`} width={560}>
      <p className="soft mb-3 text-small">
        {handle
          ? `The handle ${handle.name} gives its base${line ? '; its line waits' : ''}.`
          : line?.points.length
            ? 'Its line gives its base.'
            : 'Its hand gives its base.'}{' '}
        Movers add around that, in parts of its travel; it never leaves {said(param, param.min)} to{' '}
        {said(param, param.max)}.
      </p>
      <div className="flex flex-col gap-3">
        {own ? (
          <section
            className="grid grid-cols-2 gap-x-5 gap-y-1 rounded-[3px] border p-2.5"
            style={{ borderColor: 'var(--hair)' }}
            aria-label={`Handle ${own.name}`}
          >
            <HandleSettings handle={own} />
          </section>
        ) : (
          <HandlePart
            owner={owner}
            param={param}
            label={label}
            handle={handle}
            handles={(project.handles ?? []) as Handle[]}
          />
        )}
        {movers.map((m) => (
          <MoverPart key={m.id} mover={m as Mover} owner={owner} name={param.name} />
        ))}
        <div className="flex gap-2">
          <button
            className="btn btn-sm btn-outline font-normal"
            data-first
            onClick={() => void moves.addMover(owner, param.name, label)}
          >
            Add a mover
          </button>
          {stage?.actsOn === 'both' && (
            <button
              className="btn btn-sm btn-outline font-normal"
              title="The stage acts on the left and a copy of it on the right; what moves the one moves the other the other way round"
              onClick={() => void moves.moveApart(owner, param.name, label)}
            >
              Move left and right apart
            </button>
          )}
          <button
            className="btn btn-sm btn-outline font-normal"
            onClick={() => {
              setView({ dialog: null })
              void openLine(owner, param.name, label)
            }}
          >
            {line ? 'See its line' : 'Give it a line'}
          </button>
        </div>
      </div>
    </Card>
  )
}
