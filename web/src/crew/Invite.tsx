import { useState } from 'react'
import { answer, api } from '../api/client'
import type { Role } from '../api/types'
import { refused } from '../session/store'
import type { Run } from './CrewCard'
import { HandedOver } from './HandedOver'

const holds = [
  [24, 'a day'],
  [7 * 24, 'a week'],
  [30 * 24, '30 days'],
] as const

/** Makes a link that brings somebody in. */
export function Invite({ id, run }: { id: string; run: Run }) {
  const [made, setMade] = useState<{ path: string; until: string } | null>(null)
  const make = (f: FormData) => {
    const body = {
      role: f.get('role') as Role,
      uses: Number(f.get('uses')),
      hours: Number(f.get('hours')),
    }
    const asked = answer(api.POST('/api/projects/{id}/links', { params: { path: { id } }, body }))
    void run(asked.then(setMade, refused))
  }
  return (
    <>
      <form
        className="mt-3 flex flex-wrap items-center gap-2"
        aria-label="Bring somebody in"
        onSubmit={(e) => {
          e.preventDefault()
          make(new FormData(e.currentTarget))
        }}
      >
        <span className="font-semibold">Bring in</span>
        <select
          name="role"
          aria-label="As what"
          className="select select-sm w-[120px]"
          defaultValue="engineer"
        >
          <option value="listener">a listener</option>
          <option value="engineer">an engineer</option>
          <option value="owner">an owner</option>
        </select>
        <select name="uses" aria-label="How many" className="select select-sm w-[130px]" defaultValue="1">
          <option value="1">one person</option>
          <option value="5">5 people</option>
          <option value="20">20 people</option>
          <option value="0">any number</option>
        </select>
        <select name="hours" aria-label="Within" className="select select-sm w-[110px]" defaultValue={7 * 24}>
          {holds.map(([hours, text]) => (
            <option key={hours} value={hours}>
              {text}
            </option>
          ))}
        </select>
        <button className="btn btn-sm btn-primary">Make a link</button>
      </form>
      {made && <HandedOver key={made.path} {...made} />}
    </>
  )
}
