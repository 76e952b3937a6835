import { useState } from 'react'
import { useNavigate } from 'react-router'
import { answer, api, upload } from '../api/client'
import { refused } from '../session/store'
import { bring } from './brought'
import { NewProjectForm } from './NewProjectForm'
import { useDemo } from './useDemo'

/** What one can begin with: the demo, sound of one's own, a project that is made, one that comes as a bundle. */
export function Begin({ first, run }: { first: boolean; run: (what: Promise<unknown>) => unknown }) {
  const go = useNavigate()
  const demo = useDemo()
  const [making, setMaking] = useState(false)
  const withSound = async (files: File[]) => {
    if (!files.length) return
    const name = files[0]!.name.replace(/\.[^.]*$/, '').slice(0, 80) || 'Sound'
    try {
      const made = await answer(
        api.POST('/api/projects', { body: { name, sampleRate: 48000, tempo: 100, beats: 4, unit: 4 } }),
      )
      bring(made.id, files)
      void go(`/project/${made.id}`)
    } catch (e) {
      refused(e)
    }
  }
  return (
    <>
      <div className="flex flex-col gap-2">
        {demo.making ? (
          <div className="flex flex-col gap-1.5 rounded border p-3" style={{ borderColor: 'var(--hair)' }}>
            <span>The demo’s sound is made: {Math.round(demo.part * 100)} %</span>
            <progress className="progress w-full" value={demo.part} max={1} />
            <button className="btn btn-xs btn-ghost self-start" onClick={demo.cancel}>
              Cancel
            </button>
          </div>
        ) : (
          <Way
            main={first}
            name="Open the demo"
            says="Slack Water: a short piece to listen to, and to change as you like."
            onClick={() => void demo.open()}
          />
        )}
        <Way
          main={!first}
          name="New project"
          says="Empty, or with rows and chains for a kind of work."
          expanded={making}
          onClick={() => setMaking(!making)}
        />
        <FilePick
          name="Import sound"
          says="WAV, FLAC or MP3: a project with a row for each file."
          accept=".wav,.flac,.mp3,audio/*"
          several
          onFiles={withSound}
        />
        <FilePick
          name="Import a bundle"
          says="A project that somebody exported."
          accept=".zip"
          onFiles={(files) => files[0] && void run(upload('/api/bundles', files[0]))}
        />
      </div>
      {making && (
        <NewProjectForm onMade={(p) => void go(`/project/${p.id}`)} onClose={() => setMaking(false)} />
      )}
    </>
  )
}

const look = 'btn h-auto flex-col items-start gap-0 px-3 py-2 text-left font-normal'
const Says = ({ name, says }: { name: string; says: string }) => (
  <>
    <span className="font-semibold">{name}</span>
    <span className="text-small opacity-80">{says}</span>
  </>
)

function Way(p: { main: boolean; name: string; says: string; expanded?: boolean; onClick: () => void }) {
  return (
    <button
      className={`${look} ${p.main ? 'btn-primary' : 'btn-outline'}`}
      aria-label={p.name}
      aria-expanded={p.expanded}
      onClick={p.onClick}
    >
      <Says name={p.name} says={p.says} />
    </button>
  )
}

function FilePick(p: {
  name: string
  says: string
  accept: string
  several?: boolean
  onFiles: (files: File[]) => unknown
}) {
  return (
    <label className={`${look} btn-outline`}>
      <Says name={p.name} says={p.says} />
      <input
        type="file"
        aria-label={p.name}
        accept={p.accept}
        multiple={p.several}
        className="sr-only"
        onChange={(e) => {
          const files = [...(e.target.files ?? [])]
          e.target.value = ''
          void p.onFiles(files)
        }}
      />
    </label>
  )
}
