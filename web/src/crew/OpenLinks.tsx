import { answer, api } from '../api/client'
import type { Crew } from '../api/types'
import type { Run } from './CrewCard'
import { when } from './HandedOver'

/** The links that still bring somebody in; each can be taken back. */
export function OpenLinks({ id, links, run }: { id: string; links: Crew['links']; run: Run }) {
  if (links.length === 0) return null
  return (
    <section className="mt-3">
      <h3 className="font-semibold">Links that are open</h3>
      <ul>
        {links.map((l) => (
          <li key={l.id} className="flex min-h-8 items-center gap-2">
            <span className="grow">
              {articles[l.role]}, {used(l.used, l.uses)}, until {when(l.until)}, by {l.by}
            </span>
            <button
              className="btn btn-sm btn-ghost font-normal"
              onClick={() =>
                void run(
                  answer(
                    api.DELETE('/api/projects/{id}/links/{link}', { params: { path: { id, link: l.id } } }),
                  ),
                )
              }
            >
              Take back
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}

const articles = { listener: 'A listener', engineer: 'An engineer', owner: 'An owner' }

const used = (n: number, of: number) =>
  of === 0 ? `used ${n} times, for any number` : `used ${n} of ${of} times`
