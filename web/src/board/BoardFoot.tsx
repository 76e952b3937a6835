import { makeGroup, openSend } from '../routing/gestures'
import { projectId, useSession } from '../session/store'
import { setView, useViewOf } from '../session/view'
import { openShelf } from '../shelf/open'
import { importFiles } from './import'
import { addRow } from './rows'

/** What stands below the rows: new ones, sound from files, what is done with several, and those that are hidden. */
export function BoardFoot({ hidden }: { hidden: number }) {
  const only = useSession((s) => (s.project!.channels.length === 1 ? s.project!.channels[0]!.name : null))
  const { rows, showHidden } = useViewOf('rows', 'showHidden')
  return (
    // over the playhead, which goes through all rows down to the bench
    <div
      className="relative z-[21] flex shrink-0 grow flex-wrap content-start items-center gap-3 px-3 py-1.5 text-small"
      style={{ background: 'var(--paper)' }}
    >
      <button className="btn btn-xs btn-outline font-normal" onClick={() => void addRow('track')}>
        Add a track
      </button>
      <button className="btn btn-xs btn-outline font-normal" onClick={() => void addRow('return')}>
        Add a return
      </button>
      <label className="btn btn-xs btn-outline font-normal">
        Import sound
        <input
          type="file"
          multiple
          className="sr-only"
          accept=".wav,.flac,.mp3,audio/*"
          onChange={(e) => {
            void importFiles(projectId(), [...(e.target.files ?? [])])
            e.target.value = ''
          }}
        />
      </label>
      <button className="btn btn-xs btn-outline font-normal" onClick={openShelf}>
        From the shelf <kbd className="kbd kbd-xs">W</kbd>
      </button>
      {rows.length > 1 && (
        <>
          <button className="btn btn-xs btn-secondary font-normal" onClick={() => void makeGroup()}>
            Group {rows.length} rows <kbd className="kbd kbd-xs">A</kbd>
          </button>
          <button className="btn btn-xs btn-secondary font-normal" onClick={openSend}>
            Send {rows.length} rows to <kbd className="kbd kbd-xs">S</kbd>
          </button>
        </>
      )}
      {hidden > 0 && (
        <button
          className="btn btn-xs btn-ghost font-normal"
          onClick={() => setView({ showHidden: !showHidden })}
        >
          {showHidden ? 'Leave out' : 'Show'} {hidden} hidden
        </button>
      )}
      {only && (
        <p className="soft w-full text-label">
          Nothing is heard yet: drop WAV, FLAC or MP3 files anywhere here, add a track and record onto it, or
          take a sound from the shelf. All of it ends up in {only}.
        </p>
      )}
    </div>
  )
}
