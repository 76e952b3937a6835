import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api } from '../api/client'
import type { Listing } from '../api/types'
import { Modal } from '../controls/Modal'
import { refused } from '../session/store'
import { Acts } from './Acts'
import { HandedOver, when } from './HandedOver'
import { Mark } from './Mark'

/** For who keeps this Shoal: its accounts, links for new ones and for forgotten passwords, and what was done. */
export function House({ onClose }: { onClose: () => void }) {
  const [made, setMade] = useState<{ path: string; until: string } | null>(null)
  const { data = [], refetch } = useQuery({
    queryKey: ['accounts'],
    queryFn: () => answer(api.GET('/api/accounts')),
  })
  const run = (what: Promise<unknown>) => what.then(() => refetch(), refused)
  const reset = (person: string) =>
    answer(api.POST('/api/accounts/{person}/reset', { params: { path: { person } } })).then(setMade, refused)
  return (
    <Modal title="People of this Shoal" width={620} onClose={onClose}>
      <button
        className="btn btn-sm btn-primary"
        onClick={() => void answer(api.POST('/api/accounts/links')).then(setMade, refused)}
      >
        Make a link for a new account
      </button>
      {made && <HandedOver key={made.path} {...made} />}
      <ul className="mt-2">
        {data.map((a) => (
          <AccountRow key={a.id} of={a} run={run} reset={() => void reset(a.id)} />
        ))}
      </ul>
      <Acts />
    </Modal>
  )
}

type Props = { of: Listing; run: (what: Promise<unknown>) => Promise<unknown>; reset: () => void }

function AccountRow({ of: a, run, reset }: Props) {
  const at = { params: { path: { person: a.id } } }
  return (
    <li className="flex min-h-9 items-center gap-2 border-b" style={{ borderColor: 'var(--hair)' }}>
      <Mark id={a.id} name={a.name} says={a.name} />
      <span className="min-w-0 grow leading-tight">
        <span className={`block truncate font-semibold ${a.closed ? 'struck' : ''}`}>{a.name}</span>
        <span className="soft block text-small">
          {a.keeper ? 'Keeps this Shoal. ' : ''}
          {a.closed ? `Closed ${when(a.closed)}` : `Since ${when(a.created)}`}
        </span>
      </span>
      <button className="btn btn-sm btn-ghost font-normal" onClick={reset}>
        Another password
      </button>
      {!a.keeper &&
        (a.closed ? (
          <button
            className="btn btn-sm btn-outline font-normal"
            onClick={() => void run(answer(api.POST('/api/accounts/{person}/restore', at)))}
          >
            Open again
          </button>
        ) : (
          <button
            className="btn btn-sm btn-ghost font-normal"
            onClick={() => void run(answer(api.DELETE('/api/accounts/{person}', at)))}
          >
            Close
          </button>
        ))}
    </li>
  )
}
