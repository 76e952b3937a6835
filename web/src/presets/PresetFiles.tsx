import { useRef } from 'react'
import type { Preset } from '../api/types'
import { Menu } from '../controls/Menu'
import { exportAll, importFile } from './actions'

type Props = { found: Preset[]; all: Preset[]; name: string; onImported: () => unknown }

/** Presets as files: those that are shown, one's own, and others' brought in. */
export function PresetFiles({ found, all, name, onImported }: Props) {
  const field = useRef<HTMLInputElement>(null)
  const own = all.filter((p) => !p.shipped)
  return (
    <>
      <Menu
        label="Files of presets"
        items={[
          { text: 'Export these as a file', run: () => void exportAll(found, `shoal-presets-${name}`) },
          { text: 'Export your own as a file', run: () => void exportAll(own, 'shoal-presets') },
          { text: 'Import a file', run: () => field.current?.click() },
        ]}
      >
        File ▾
      </Menu>
      <input
        ref={field}
        type="file"
        accept="application/json,.json"
        className="sr-only"
        aria-label="Import a file of presets"
        onChange={(e) => {
          const f = e.target.files?.[0]
          if (f) void importFile(f).then(onImported)
          e.target.value = ''
        }}
      />
    </>
  )
}
