import { turnDown } from '../board/rows'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'

/** Why nothing is heard, and the ways out: the output is muted for protection, or there is none. */
export function Protection() {
  const trip = useSession((s) => s.trip)
  const output = useSession((s) => s.output)
  const row = useSession((s) => s.project?.channels.find((c) => c.id === trip?.row))
  return (
    <>
      {!output && (
        <span role="alert">
          <b>There is no sound output.</b> The song is followed in silence. Connect or choose one in the
          settings of your system; the sound comes by itself.
        </span>
      )}
      {trip && row && (
        <span role="alert" className="flex flex-wrap items-center gap-2" style={{ color: 'var(--loss)' }}>
          <b>
            {row.name} reaches {over(trip.peak)} dBFS:{' '}
            {trip.eased ? 'heard 20 dB down' : 'muted to protect your ears'}.
          </b>
          <button className="btn btn-xs btn-outline" onClick={turnDown}>
            Turn it down
          </button>
          <button
            className="btn btn-xs btn-outline"
            aria-pressed={trip.eased}
            onClick={() => theEngine()?.anyway(!trip.eased)}
          >
            {trip.eased ? 'Mute it again' : 'Hear it anyway at −20 dB'}
          </button>
        </span>
      )}
    </>
  )
}

export const over = (db: number) => `+${db.toFixed(1)}`
