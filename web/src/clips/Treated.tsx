import type { Treatment } from '../api/types'
import { stageName, stages } from '../document/chain'
import { useSession } from '../session/store'

/** A treated clip has a hatched lower edge; without its treatment it is only outlined. */
export function Treated({ off, width, height }: { off: boolean; width: number; height: number }) {
  return (
    <span
      aria-hidden
      className="pointer-events-none absolute left-0"
      style={{
        top: height - 6,
        width,
        height: 5,
        borderTop: '1px solid var(--ink)',
        background: off
          ? undefined
          : 'repeating-linear-gradient(135deg, var(--ink) 0 1.5px, transparent 1.5px 5px), var(--card)',
      }}
    />
  )
}

/** What a treatment does, stage by stage. */
export function useTreatmentWords(t: Treatment | undefined): string {
  const effects = useSession((s) => s.effects)
  if (!t) return ''
  const words = [...stages(t.chain.nodes)].map((s) => stageName(s, effects))
  return `${words.join(', ')}${t.chain.bypass ? ' (out)' : ''}`
}
