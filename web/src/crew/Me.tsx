import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api } from '../api/client'
import { Menu } from '../controls/Menu'
import { refused } from '../session/store'
import { Account } from './Account'
import { House } from './House'

/** Who is signed in, and what concerns them: their account, and for who keeps this Shoal its people. */
export function Me() {
  const client = useQueryClient()
  const [open, setOpen] = useState<'account' | 'house' | null>(null)
  const { data: me } = useQuery({ queryKey: ['me'], queryFn: () => answer(api.GET('/api/me')) })
  if (!me?.accounts || !me.id) return null
  const out = () =>
    answer(api.DELETE('/api/session')).then(() => {
      client.removeQueries({ predicate: (q) => q.queryKey[0] !== 'me' })
      client.setQueryData(['me'], { ...me, id: '', name: '' })
    }, refused)
  return (
    <>
      <Menu
        label={`${me.name}: account`}
        className="btn btn-sm btn-ghost"
        items={[
          { text: 'Your account', run: () => setOpen('account') },
          me.keeper && { text: 'People of this Shoal', run: () => setOpen('house') },
          { text: 'Sign out', run: () => void out() },
        ]}
      >
        {me.name} <span className="soft text-small">▾</span>
      </Menu>
      {open === 'account' && <Account me={me} onClose={() => setOpen(null)} />}
      {open === 'house' && <House onClose={() => setOpen(null)} />}
    </>
  )
}
