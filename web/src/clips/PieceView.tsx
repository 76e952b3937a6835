import type { Channel, Clip } from '../api/types'
import { Chain } from '../bench/ChainView'
import { chosenTreatment } from '../session/selected'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { hearPiece, loopPiece, type Way, wayOf } from './hearing'
import { PieceSays } from './PieceSays'
import { TreatmentMenu } from './TreatmentMenu'
import * as treatment from './treatment'
import { WithoutIt } from './WithoutIt'

const ways: [Way, string, string][] = [
  ['alone', 'Alone', 'Hear it without the chain of its row ( V )'],
  ['row', 'Its row', 'Hear its row alone ( Shift V )'],
  ['mix', 'In the mix', 'Hear it in the mix'],
]

/** The selected clips spread out: their treatment as a section through the sea, and how they are heard. */
export function PieceView({ clips, channel }: { clips: Clip[]; channel: Channel }) {
  useSession((s) => s.project) // what they share may have changed
  const row = chosenTreatment()
  const mixed = !row && clips.some((c) => c.treatment)
  return (
    <>
      {row ? (
        <Chain
          key={row.id}
          channel={row}
          head={<Head clips={clips} channel={channel} row={row} />}
          onAdd={treatment.openTreatment}
        />
      ) : (
        <div className="flex min-h-0 flex-1 flex-col">
          <Head clips={clips} channel={channel} />
          <div
            className="m-3 flex min-h-0 flex-1 flex-col items-center justify-center gap-2 rounded border border-dashed text-label"
            style={{ borderColor: 'var(--soft)' }}
          >
            <span className="soft">
              {mixed
                ? 'These clips have different treatments: select those that share one to see it.'
                : 'No treatment yet: what is added here works on this piece alone, before its row.'}
            </span>
            <button className="btn btn-xs btn-outline font-normal" onClick={treatment.openTreatment}>
              {mixed ? 'Add a stage to each ( / )' : 'Add a stage ( / )'}
            </button>
          </div>
        </div>
      )}
      <PieceSays clips={clips} channel={channel} row={row} />
    </>
  )
}

function Head({ clips, channel, row }: { clips: Clip[]; channel: Channel; row?: Channel }) {
  const now = useView((v) => wayOf(channel.id, v))
  const name = clips.length === 1 ? clips[0]!.name : `${clips.length} clips`
  const shared = row ? sharedBy(row.id) : 0
  return (
    <div className="flex h-9 shrink-0 items-center gap-x-2 px-3.5 pt-1">
      <button
        className="text-head font-bold whitespace-nowrap"
        title="The clip itself"
        onClick={() => setView({ stage: '', together: [] })}
      >
        {name}
      </button>
      <span className="soft line-clamp-2 min-w-[60px] text-small leading-[14px]">
        {row ? (shared > 1 ? `a treatment shared by ${shared} clips` : 'its own treatment') : 'untreated'}
      </span>
      <span className="-my-1 ml-auto flex min-w-0 items-center gap-1.5 overflow-x-auto px-0.5 py-1 [&>*]:shrink-0">
        <span className="flex gap-0.5" role="group" aria-label="How it is heard">
          {ways.map(([way, text, says]) => (
            <button
              key={way}
              className={`btn btn-xs px-2 ${now === way ? 'btn-secondary' : 'btn-outline'} font-normal`}
              aria-pressed={now === way}
              title={says}
              onClick={() => now !== way && hearPiece(way === 'mix' ? now : way)}
            >
              {text}
            </button>
          ))}
        </span>
        <button className="btn btn-xs btn-outline font-normal" title="Loop over it ( L )" onClick={loopPiece}>
          Loop
        </button>
        {row && <WithoutIt clips={clips} />}
        {row && <InOut row={row} />}
        <TreatmentMenu clips={clips} row={row} shared={shared} />
      </span>
    </div>
  )
}

function sharedBy(id: string): number {
  const channels = useSession.getState().project?.channels ?? []
  return channels.flatMap((c) => c.clips).filter((c) => c.treatment === id).length
}

const InOut = ({ row }: { row: Channel }) => (
  <span className="flex gap-0.5">
    {[false, true].map((out) => (
      <button
        key={String(out)}
        className={`btn btn-xs px-2 ${row.chain.bypass === out ? 'btn-primary' : 'btn-outline font-normal'}`}
        aria-pressed={row.chain.bypass === out}
        title={`${out ? 'Without' : 'With'} the treatment ( B )`}
        onClick={() => row.chain.bypass !== out && void treatment.setBypass(row, out)}
      >
        {out ? 'Out' : 'In'}
      </button>
    ))}
  </span>
)
