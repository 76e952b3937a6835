import { Card } from '../controls/Card'
import { setView } from '../session/view'

/** Asks once whether lines and passages go with a section, or lines with a clip. */
export function AlongCard({ run }: { run: (along: boolean) => void }) {
  const answer = (along: boolean) => {
    setView({ along, dialog: null })
    run(along)
  }
  return (
    <Card title="Take lines and passages along?" width={420}>
      <p className="text-label">
        A section goes with its clips. Automation lines and passages can go with it, and lines with a clip, or
        stay where they are in the song. This is remembered; the menu of a section can change it.
      </p>
      <div className="mt-3 flex justify-end gap-2">
        <button className="btn btn-sm btn-outline" onClick={() => answer(false)}>
          Leave them
        </button>
        <button data-first className="btn btn-sm btn-primary" onClick={() => answer(true)}>
          Take them along
        </button>
      </div>
    </Card>
  )
}
