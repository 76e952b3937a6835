import type { Channel, Take } from '../api/types'
import { Menu } from '../controls/Menu'
import { NameField } from '../controls/NameField'
import { barAt } from '../document/time'
import { useSession } from '../session/store'
import { locate } from '../session/transport'
import { setView, useView } from '../session/view'
import { choose, drop, type Form, heardForm, rename } from './takes'
import { TakeWave } from './TakeWave'

type Range = { from: number; to: number }

/** A take: how loud it is, what it sounds like, and both forms of it, of which one may be heard. */
export function TakeRow(p: { take: Take; channel: Channel; range: Range | null }) {
  const { take: t, channel } = p
  const heard = heardForm(channel, t)
  const renaming = useView((v) => v.renaming === t.id)
  return (
    <div
      role="listitem"
      aria-label={`${t.name}${heard ? `, ${heard}, heard` : ''}`}
      className="flex items-center gap-2.5 rounded-[3px] border px-2 py-1"
      style={{
        background: 'var(--card)',
        borderColor: heard ? 'var(--ink)' : 'var(--hair)',
        boxShadow: heard ? '0 0 0 1px var(--ink)' : undefined,
        opacity: t.dropped ? 0.6 : undefined,
      }}
    >
      <span className="w-[104px] shrink-0">
        {renaming ? (
          <NameField name={t.name} label="Name of the take" onName={(name) => void rename(t, name)} />
        ) : (
          <span className="block truncate text-label font-semibold">{t.name}</span>
        )}
        <span className="figure soft block text-small">{loudness(t, heard)}</span>
      </span>
      <span className="min-w-0 grow">
        <TakeWave take={t} />
        <Says take={t} />
      </span>
      <Forms {...p} heard={heard} />
      <Menu
        label={`Menu of ${t.name}`}
        className="btn btn-xs btn-ghost px-1"
        items={[
          { text: 'Name it', run: () => setView({ renaming: t.id }) },
          { text: 'To its beginning', run: () => locate(t.runs[0]!.song) },
          t.dropped
            ? { text: 'Take it back', run: () => void drop(t, false) }
            : { text: 'Put it away', run: () => void drop(t, true), off: heard !== '' },
        ]}
      >
        ⋯
      </Menu>
    </div>
  )
}

/** What happened while it was recorded. */
function Says({ take: t }: { take: Take }) {
  const timeline = useSession((s) => s.timeline)
  const changed =
    t.changed != null && timeline
      ? `its way in was changed at bar ${barAt(timeline, t.changed) + 1}: treated as it was at the end`
      : ''
  const says = [t.ended, changed].filter(Boolean).join('; ')
  if (!says) return null
  return (
    <span className="block truncate text-small" style={{ color: 'var(--caution)' }} title={says}>
      {says}
    </span>
  )
}

function Forms({
  take: t,
  channel,
  range,
  heard,
}: {
  take: Take
  channel: Channel
  range: Range | null
  heard: Form | ''
}) {
  const forms: Form[] = t.treated ? ['treated', 'untouched'] : ['untouched']
  return (
    <span className="flex w-[122px] shrink-0 flex-col">
      {forms.map((f) => (
        <button
          key={f}
          className={`h-6 px-1.5 text-left text-small whitespace-nowrap ${heard === f ? 'font-bold' : 'water-label underline decoration-dotted'}`}
          aria-pressed={heard === f}
          title={
            f === 'treated'
              ? `Recorded through ${t.through?.join(', ')}`
              : 'The bare input: the whole chain is heard after it'
          }
          onClick={() => void choose(channel, t, f, range)}
        >
          {heard === f ? `${f} · heard` : f}
        </button>
      ))}
    </span>
  )
}

function loudness(t: Take, heard: Form | ''): string {
  const loud = heard === 'untouched' || !t.treated ? t.loud : t.loudTreated
  return loud && loud > -100 ? `${loud.toFixed(1).replace('-', '−')} LUFS` : 'silent'
}
