import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { answer, api } from '../api/client'
import type { LinkSays } from '../api/types'
import { Secret } from './Secret'
import { Threshold } from './Threshold'

/** Where a link leads that somebody was handed: it says what it opens, and asks for what is needed for that. What opens it stands
    behind the # of the address, which no server is sent. */
export function Welcome() {
  const [key] = useState(() => decodeURIComponent(location.hash.slice(1))) // it goes once the link was taken
  const { data: me } = useQuery({ queryKey: ['me'], queryFn: () => answer(api.GET('/api/me')) })
  const { data: link, error } = useQuery({
    queryKey: ['link', key],
    queryFn: () => answer(api.POST('/api/links/look', { body: { key } })),
    retry: false,
  })
  if (error) {
    return (
      <Threshold title="This link opens nothing">
        <p>{error.message}</p>
        <Link className="btn btn-outline self-start" to="/">
          To Shoal
        </Link>
      </Threshold>
    )
  }
  if (!link || !me) return null
  const known = link.kind === 'join' && me.id ? me.name : ''
  return (
    <Threshold title={titles[link.kind]} says={says(link, known)}>
      <Take key={key} of={link} secret={key} known={known} />
    </Threshold>
  )
}

const titles = {
  first: 'The first account',
  account: 'An account',
  reset: 'Another password',
  join: 'Come in',
}

const articles: Record<string, string> = {
  listener: 'a listener',
  engineer: 'an engineer',
  owner: 'an owner',
}

function says(link: LinkSays, known: string): string {
  switch (link.kind) {
    case 'first':
      return 'It keeps this Shoal: it invites others, and all projects that are here already become its own.'
    case 'reset':
      return `For ${link.for}. Wherever you are signed in, you are signed out.`
    case 'account':
      return `${link.by} invites you to this Shoal.`
  }
  const into = `${link.by} brings you into “${link.project}”, as ${articles[link.role ?? '']}.`
  return known ? `${into} You are signed in as ${known}.` : into
}

function Take({ of: link, secret, known }: { of: LinkSays; secret: string; known: string }) {
  const client = useQueryClient()
  const go = useNavigate()
  const [wrong, setWrong] = useState('')
  const take = (f: FormData) => {
    const text = (name: string) => (f.get(name) as string | null) ?? undefined
    answer(
      api.POST('/api/links/take', { body: { key: secret, name: text('name'), password: text('password') } }),
    ).then(
      (taken) => {
        client.setQueryData(['me'], taken)
        void go(taken.project ? `/project/${taken.project}` : '/', { replace: true })
      },
      (e: Error) => setWrong(e.message),
    )
  }
  const fresh = link.kind !== 'reset' && !known
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault()
        take(new FormData(e.currentTarget))
      }}
    >
      {fresh && (
        <label>
          Your name, as others see it
          <input
            name="name"
            required
            autoFocus
            autoComplete="username"
            maxLength={60}
            className="input w-full"
          />
        </label>
      )}
      {!known && <Secret name="password" label="Password" autoFocus={!fresh} />}
      {wrong && (
        <p role="alert" className="border-l-2 pl-2" style={{ borderColor: 'var(--loss)' }}>
          {wrong}
        </p>
      )}
      <button className="btn btn-primary">{link.kind === 'join' ? 'Come in' : 'Go on'}</button>
      {fresh && link.kind === 'join' && (
        <p className="soft text-small">
          You have an account already?{' '}
          <Link className="link" to="/">
            Sign in
          </Link>{' '}
          first, then open this link again.
        </p>
      )}
    </form>
  )
}
