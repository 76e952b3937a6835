/** Tags by which a list is narrowed down; the one that is on, pressed again, is off. */
export const PresetTags = (p: { tags: string[]; on: string; onPick: (tag: string) => void }) => (
  <div className="mt-2 flex flex-wrap gap-1" role="group" aria-label="Tags">
    {p.tags.map((t) => (
      <button
        key={t}
        className={`badge badge-sm h-6 cursor-pointer ${t === p.on ? 'badge-primary' : 'badge-outline'}`}
        aria-pressed={t === p.on}
        onClick={() => p.onPick(t === p.on ? '' : t)}
      >
        {t}
      </button>
    ))}
  </div>
)
