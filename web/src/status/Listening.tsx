import type { Channel } from '../api/types'
import { forkTitle } from '../session/outline'
import { nameOf } from '../session/selected'
import { findFork, findNode } from '../document/chain'
import { hear, listenToAll } from '../session/listening'
import { useSession } from '../session/store'
import { setView, useView, useViewOf } from '../session/view'
import { pointHeard } from './pointHeard'

/** Says what this window hears; what is only a part of it is ended here. */
export function Listening() {
  const listening = useView((v) => v.listening)
  const { dry, share, solo, mono, without } = useViewOf('dry', 'share', 'solo', 'mono', 'without')
  const project = useSession((s) => s.project)!
  const node = listening?.node
  const found = node ? findNode(project, node) : null
  const heard = (listening?.paths ?? []).flatMap((id) => findFork(project, id) ?? [])
  const alone = dry || share
  const row = project.channels.find((c) => c.id === alone)
  const soloed = project.channels.filter((c) => solo.includes(c.id)).map((c) => c.name)
  if (without) return <Without id={without} />
  if (!alone && !found && heard.length === 0)
    return (
      <span className="soft">
        You hear {soloed.length ? `only ${soloed.join(' and ')}` : 'the whole mix'}
        {mono ? ', in mono' : ''}
      </span>
    )
  const name = found ? (found.node.fork ? forkTitle(found.node.fork) : nameOf(node!)) : ''
  const paths = heard.map((x) => x.path?.name).join(' and ')
  const point = pointHeard({ listening, share: row?.kind === 'return' ? '' : share }, { found, heard, name })
  const button = (
    <button
      className="btn btn-xs btn-secondary max-w-[520px]"
      onClick={() => {
        listenToAll()
        if (alone) hear({ dry: '', share: '' })
      }}
      title="Only this window hears it. Esc ends it."
    >
      <span className="truncate">
        You hear{' '}
        {listening && found
          ? listening.key
            ? `what drives ${name} on ${found.channel.name}`
            : listening.change
              ? `only what ${name} on ${found.channel.name} changes`
              : `${found.channel.name} up to ${name}`
          : heard.length
            ? `only ${paths} of ${heard[0]!.channel.name}`
            : alonePart(row, dry !== '')}
      </span>
      <kbd className="kbd kbd-xs">Esc</kbd>
    </button>
  )
  return (
    <span className="flex items-center gap-1.5">
      {button}
      {point && (
        <button
          className="btn btn-xs btn-ghost font-normal"
          title="Print what is heard here to a track of its own"
          onClick={() => setView({ dialog: { kind: 'print', target: 'track', ...point } })}
        >
          Print it
        </button>
      )}
    </span>
  )
}

/** A row without its returns, or their share of it; a return by what goes into it, or what it brings back. */
function alonePart(row: Channel | undefined, dry: boolean): string {
  if (row?.kind === 'return')
    return dry ? `what goes into ${row.name}, without it` : `only what ${row.name} brings back`
  return dry ? `${row?.name} without its returns` : `only what comes back of ${row?.name}`
}

/** What is heard while a key keeps a stage out. */
function Without({ id }: { id: string }) {
  const project = useSession((s) => s.project)!
  const node = findNode(project, id)?.node
  const at = node?.stage ?? node?.fork
  if (!at) return null
  return (
    <span className="font-semibold">
      You hear the mix {at.bypass ? 'with' : 'without'} {nameOf(id)}
    </span>
  )
}
