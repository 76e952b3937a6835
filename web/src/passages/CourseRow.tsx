import type { CourseTargetView, CourseView, PassageView } from '../api/types'
import { CourseStrip } from './CourseStrip'
import { Figure } from './Figure'
import * as passages from './actions'

/** A course: how it goes, and what it moves from where to where. */
export function CourseRow({ v, course, index }: { v: PassageView; course: CourseView; index: number }) {
  const always = course.targets.every((t) => t.always)
  return (
    <section
      className="grid grid-cols-[112px_minmax(0,1fr)] gap-3 pb-1"
      style={{ borderBottom: '1px solid var(--hair)' }}
      aria-label={`Course ${course.name}`}
    >
      <div>
        <h3 className="text-small font-semibold">{course.name}</h3>
        {always ? (
          <p className="soft text-small">all the time</p>
        ) : (
          <CourseStrip v={v} course={course} index={index} />
        )}
      </div>
      <div className="flex flex-col gap-0.5">
        {alike(course.targets).map((list) => (
          <Targets key={`${list[0]!.owner} ${list[0]!.name}`} v={v} index={index} list={list} />
        ))}
      </div>
    </section>
  )
}

/** The same parameter with the same range on several rows is shown, and set, as one. */
function alike(targets: CourseTargetView[]): CourseTargetView[][] {
  const groups = new Map<string, CourseTargetView[]>()
  for (const t of targets) {
    const of = t.of === t.row ? '' : t.of
    const key = [of, t.name, t.from, t.to, t.here].join(' ')
    groups.set(key, [...(groups.get(key) ?? []), t])
  }
  return [...groups.values()]
}

function Targets({ v, index, list }: { v: PassageView; index: number; list: CourseTargetView[] }) {
  const t = list[0]!
  const on = [...new Set(list.map((x) => x.row))] // also once where a row's trials are reached too
  const rows = on.length === 1 ? t.row : `${on.length} rows`
  const of = t.of === t.row ? '' : `${t.of}, `
  const name = `${t.param.label} of ${t.of === t.row ? rows : t.of}`
  const choice = t.param.taper === 'choice' || t.param.taper === 'switch'
  return (
    <div className="flex items-center gap-1 text-small">
      <span className="min-w-0 flex-1 leading-4" title={`${t.param.label} of ${of}${on.join(', ')}`}>
        {t.param.label} <span className="soft text-small">{`${of}${rows}`}</span>
      </span>
      {t.length ? (
        <span className="soft text-small">{`${Math.round((t.length ?? 0) * 100)} % of its length`}</span>
      ) : t.always && choice ? (
        <span className="figure text-small">{worded(t, t.to)}</span>
      ) : t.always ? (
        <Figure
          param={t.param}
          value={t.to}
          label={name}
          onSet={(to) => void passages.setTargets(v, index, list, { to, from: to })}
        />
      ) : (
        <>
          {t.here ? (
            <button
              className="soft rounded border border-dashed px-1 text-small"
              style={{ borderColor: 'var(--soft)', minHeight: 20 }}
              title="From where it stands. Click for a value of its own."
              onClick={() => void passages.setTargets(v, index, list, { here: false })}
            >
              here
            </button>
          ) : (
            <Figure
              param={t.param}
              value={t.from}
              label={`${name}, from`}
              onSet={(from) => void passages.setTargets(v, index, list, { from })}
              onHere={choice ? undefined : () => void passages.setTargets(v, index, list, { here: true })}
            />
          )}
          <span className="soft">→</span>
          <Figure
            param={t.param}
            value={t.to}
            label={`${name}, to`}
            onSet={(to) => void passages.setTargets(v, index, list, { to })}
          />
        </>
      )}
      <button
        className="soft min-h-6 min-w-6 text-small"
        aria-label={`Leave ${name} alone`}
        title="Leave it alone"
        onClick={() => void passages.letGo(v, index, list)}
      >
        ×
      </button>
    </div>
  )
}

const worded = (t: CourseTargetView, value: number) =>
  t.name === 'bypass' || t.name === 'mute'
    ? value
      ? `${t.param.label.toLowerCase()}ed`
      : 'in'
    : (t.param.choices?.[value] ?? (value ? 'on' : 'off'))
