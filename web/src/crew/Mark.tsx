import { initials, tintOf } from './person'

type Props = { id: string; name: string; says: string; small?: boolean; children?: string }

/** A person, by their colour and their initials: nobody has to tell colours apart. */
export function Mark({ id, name, says, small, children }: Props) {
  return (
    <span
      className={`grid shrink-0 place-items-center rounded-full border-[2.5px] text-small leading-none font-bold ${
        small ? 'h-[18px] min-w-[18px] self-center px-0.5' : 'h-6 w-6'
      }`}
      style={{ borderColor: tintOf(id), background: 'var(--card)' }}
      role="img"
      title={says}
      aria-label={says}
    >
      {children ?? initials(name)}
    </span>
  )
}
