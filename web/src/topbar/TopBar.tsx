import { Link } from 'react-router'
import { Here } from '../crew/Here'
import { useSession } from '../session/store'
import { RemarkCount } from '../remarks/RemarkCount'
import { toggleLoop, togglePlay } from '../session/transport'
import { useViewOf } from '../session/view'
import { RecordButton } from '../takes/RecordButton'
import { MoreMenu } from './MoreMenu'
import { ProjectMenu } from './ProjectMenu'
import { EngineLoad, MainLevel, Place } from './Readings'
import { SoundingCount } from './SoundingCount'
import { Tempo } from './Tempo'
import { Undo } from './Undo'

/** Project and section, transport, position, tempo, main level, engine load, people, undo. */
export function TopBar() {
  const connected = useSession((s) => s.connected)
  const full = useSession((s) => s.full)
  const waiting = useSession((s) => s.waiting)
  const { playing, loop, looping } = useViewOf('playing', 'loop', 'looping')
  return (
    <header
      className="flex min-h-[45px] shrink-0 flex-wrap items-center gap-x-2.5 gap-y-1 px-3 max-[1399px]:gap-x-[7px] max-[1259px]:gap-x-1.5"
      style={{ borderBottom: '1px solid var(--hair)' }}
    >
      <Link to="/" className="text-brand font-bold" title="All projects">
        Shoal
      </Link>
      <div className="max-w-[130px] shrink-0">
        <div
          className={`truncate text-small leading-[14px] ${full ? 'font-bold' : 'soft'}`}
          style={full ? { color: 'var(--loss)' } : undefined}
          title={
            full ? 'Nothing can be changed until there is room; listening and exporting go on' : undefined
          }
        >
          {!connected ? 'Not connected: trying again' : full ? 'Disk full: read only' : 'Project'}
        </div>
        <ProjectMenu />
      </div>
      <button
        className="btn btn-primary btn-sm w-[68px] px-2"
        onClick={() => void togglePlay()}
        title="Space"
        aria-pressed={playing}
      >
        {waiting ? 'Waiting' : playing ? 'Stop' : 'Play'}
      </button>
      <RecordButton />
      <button
        className={`btn btn-sm px-2.5 font-semibold ${looping ? 'btn-secondary' : 'btn-outline'}`}
        aria-pressed={looping}
        onClick={toggleLoop}
        title={`${loop ? `${loop.name}: ` : ''}loop the range drawn on the ruler, or the section at the playhead ( L )`}
        aria-label={`Loop${loop ? ` ${loop.name}` : ''}`}
      >
        <span className="max-w-[84px] truncate">Loop{loop ? ` ${loop.name}` : ''}</span>
      </button>
      <Place />
      <Tempo />
      <MainLevel />
      <EngineLoad />
      <SoundingCount />
      <RemarkCount />
      <div className="ml-auto flex items-center gap-1">
        <Undo which="undo" />
        <Undo which="redo" />
        <MoreMenu />
        <Here />
      </div>
    </header>
  )
}
