import { useRef } from 'react'
import { download, fileAt, takerAt, upload } from '../api/client'
import { renewStages } from '../bench/stages'
import { Menu } from '../controls/Menu'
import type { Item } from '../controls/MenuEntry'
import { olderSounds } from '../document/chain'
import * as sections from '../sections/actions'
import { notice, projectId, refused, session, theProject, useSession } from '../session/store'
import { stopAtEnd } from '../session/transport'
import { setView, view } from '../session/view'

/** The project's name, and what comes into it and goes out of it as a whole. */
export function ProjectMenu() {
  const name = useSession((s) => s.project!.name)
  const file = useRef<HTMLInputElement>(null)
  const take = async (f: File | undefined) => {
    if (!f) return
    try {
      await upload(takerAt('/api/projects/{id}/midi', { path: { id: projectId() } }), f)
      notice(`Tempo, meter and sections are those of ${f.name} now. Undo brings the old ones back.`)
    } catch (e) {
      refused(e)
    }
  }
  return (
    <>
      <Menu
        label={`Menu of the project ${name}`}
        className="flex min-h-6 max-w-full items-center gap-1 text-label font-bold"
        items={() => itemsOf(() => file.current?.click())}
      >
        <span className="truncate">{name}</span>
        <span className="soft text-small">▾</span>
      </Menu>
      <input
        ref={file}
        type="file"
        className="sr-only"
        tabIndex={-1}
        accept=".mid,.midi,audio/midi"
        aria-label="A MIDI file for tempo and sections"
        onChange={(e) => {
          void take(e.target.files?.[0])
          e.target.value = ''
        }}
      />
    </>
  )
}

/** What the menu of the project offers; choose lets a MIDI file be chosen. */
function itemsOf(choose: () => void): Item[] {
  const project = theProject()!
  const older = olderSounds(project, session().effects)
  const stopsAtEnd = view().stopsAtEnd
  const save = (what: 'bundle' | 'midi') =>
    download(fileAt(`/api/projects/{id}/${what}`, { path: { id: project.id } })).catch(refused)
  return [
    {
      text: 'Begin a section at the playhead',
      run: () => void sections.begin(),
    },
    { text: 'Tempo and its ramps', run: () => setView({ dialog: { kind: 'tempo' } }) },
    {
      text: stopsAtEnd ? 'Go on playing at the end of the song' : 'Stop at the end of the song',
      run: () => stopAtEnd(!stopsAtEnd),
    },
    {
      text: 'Stems and mixes…',
      key: 'Shift P',
      run: () => setView({ dialog: { kind: 'stems' } }),
    },
    older.length > 0 && {
      text: `Use the new sounds: ${older.length} ${older.length === 1 ? 'stage has' : 'stages have'} an older one`,
      says: 'Effects that have been mended keep the sound a project was made with until somebody says so. Undo brings it back.',
      run: () => void renewStages(older),
    },
    { text: 'Export as a bundle', run: () => void save('bundle') },
    { text: 'Export tempo and sections as MIDI', run: () => void save('midi') },
    { text: 'Take tempo and sections from MIDI', run: choose },
  ]
}
