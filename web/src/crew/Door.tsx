import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { useLocation } from 'react-router'
import { answer, api } from '../api/client'
import { SignIn } from './SignIn'
import { Threshold } from './Threshold'
import { Welcome } from './Welcome'

/** Over the network there are accounts, and only whoever has signed in comes in; on one's own machine the door is open. */
export function Door({ children }: { children: ReactNode }) {
  return location.protocol === 'https:' ? <Locked>{children}</Locked> : children
}

function Locked({ children }: { children: ReactNode }) {
  const client = useQueryClient()
  const { pathname } = useLocation()
  const { data: me, error } = useQuery({ queryKey: ['me'], queryFn: () => answer(api.GET('/api/me')) })
  if (pathname === '/welcome') return <Welcome />
  if (error) return <Threshold title="Shoal">{error.message}</Threshold>
  if (!me) return null
  if (!me.accounts || me.id) return children
  return (
    <Threshold title="Shoal" says="Effects, routing and prints, decided together.">
      <SignIn onIn={(who) => client.setQueryData(['me'], who)} />
    </Threshold>
  )
}
