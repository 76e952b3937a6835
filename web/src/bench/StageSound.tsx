import { useState } from 'react'
import { takerAt, upload } from '../api/client'
import type { Change, Stage } from '../api/types'
import { change } from '../session/changes'
import { theEngine } from '../session/sound'
import { notice, refused, useSession } from '../session/store'

/** Loads a sound file for a stage that uses one. */
export function SoundLoader({ stage, what }: { stage: Stage; what: string }) {
  const project = useSession((s) => s.project)!
  const [part, setPart] = useState<number | null>(null)
  const loaded = project.audio.find((a) => a.hash === stage.sound)
  const take = async (file: File | undefined) => {
    if (!file) return
    try {
      setPart(0)
      await upload(
        takerAt('/api/projects/{id}/sounds', {
          path: { id: project.id },
          query: { stage: stage.id, name: file.name },
        }),
        file,
        setPart,
      )
      notice(`${file.name} is the ${what} now.`)
    } catch (e) {
      refused(e)
    } finally {
      setPart(null)
    }
  }
  return (
    <div className="col-span-2 flex items-center justify-between gap-2 text-label">
      <span className="soft truncate" title={loaded?.name}>
        {part !== null ? `Loading, ${Math.round(part * 100)} %` : (loaded?.name ?? `No ${what} from a file`)}
      </span>
      <label className="btn btn-xs btn-outline shrink-0 font-normal">
        Load a file
        <input
          type="file"
          className="sr-only"
          accept=".wav,.flac,audio/*"
          aria-label={`Load an ${what}`}
          onChange={(e) => {
            void take(e.target.files?.[0])
            e.target.value = ''
          }}
        />
      </label>
    </div>
  )
}

/** Lets a stage set its own parameters from what plays now. */
export function Learn({ stage, text }: { stage: Stage; text: string }) {
  const learn = async () => {
    try {
      const values = await theEngine()!.ask('learn', { id: stage.id })
      await change(
        text,
        ...Object.entries(values).map(([name, value]): Change => ({
          type: 'param.set',
          do: { owner: stage.id, name, value },
        })),
      )
    } catch (e) {
      refused(e)
    }
  }
  return (
    <button className="btn btn-xs btn-outline col-span-2 font-normal" onClick={() => void learn()}>
      {text}
    </button>
  )
}
