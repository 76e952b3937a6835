import { useState } from 'react'
import type { Clip } from '../api/types'
import { useSession } from '../session/store'
import { RemarkOn } from '../remarks/RemarkMark'
import { pick } from './chosen'
import { Treated, useTreatmentWords } from './Treated'
import type { Lens } from '../document/time'
import { openMenu } from '../controls/menuAt'
import { setView, useView } from '../session/view'
import { TakeStack } from '../takes/TakeStack'
import { ClipWave } from './ClipWave'
import { ClipName, ROOMY } from './ClipName'
import { CutMarks } from './CutMarks'
import { takesEffect } from './drop'
import { Fades } from './Fades'
import { SwellCurve } from './SwellCurve'
import { useHand } from './useHand'
import { useWorked } from './worked'
import { WorkOnClip } from './WorkOnClip'

type Props = { clip: Clip; row: string; start: number; lens: Lens; width: number; height: number }

/** A clip in its row: its sound, its fades and its swell; it is carried, and its edges are moved. */
export function ClipView({ clip, row, start, lens, width, height }: Props) {
  const work = useWorked(clip.id)
  const selected = useView((v) => v.clips.includes(clip.id))
  const hand = useHand(clip, row, lens)
  const treated = useSession((s) => s.project?.treatments?.find((t) => t.id === clip.treatment))
  const words = useTreatmentWords(treated)
  const [cursor, setCursor] = useState('grab')
  // under a hand the clip is drawn as it would be
  const by = (hand.drag?.by ?? 0) * lens.perPixel
  const grip = hand.drag?.grip
  const first = start + (grip === 'begin' ? by : 0)
  const last = start + clip.frames + (grip === 'end' ? by : 0)
  const from = Math.max(0, lens.x(first))
  const to = Math.min(width, lens.x(last))
  if (to <= from) return null
  const moved = grip === 'move' ? hand.drag!.by : 0
  const roomy = height >= ROOMY
  return (
    <div
      data-clip={clip.id}
      tabIndex={0}
      role="group"
      aria-label={`${clip.name}, a clip${clip.mute ? ', muted' : ''}${selected ? ', selected' : ''}`}
      className="absolute touch-none"
      style={{
        left: from,
        width: to - from,
        top: 1,
        height: Math.max(24, height),
        cursor,
        transform: moved ? `translateX(${moved}px)` : undefined,
        opacity: hand.drag ? 0.8 : clip.mute ? 0.45 : undefined,
        zIndex: hand.drag ? 5 : selected ? 2 : undefined,
      }}
      title={`${clip.name}${clip.mute ? ', muted' : ''}${words ? `. Treated: ${words}` : ''}`}
      onPointerDown={hand.down}
      onPointerMove={(e) => {
        hand.drags(e)
        if (!hand.drag) setCursor(cursors[hand.over(e)])
      }}
      onPointerUp={hand.up}
      onPointerCancel={hand.cancel}
      onClick={(e) => e.stopPropagation()}
      onContextMenu={(e) => {
        e.stopPropagation()
        if (!selected) pick(clip.id, row, false)
        setView({ stage: '', together: [] }) // its own panel has the menu
        openMenu('clip', e)
      }}
      {...takesEffect(clip.id, row)}
      onKeyDown={hand.key}
    >
      <ClipWave
        clip={grip === 'slip' ? { ...clip, offset: clip.offset - by } : clip}
        first={Math.round(lens.frame(from) - start)}
        perPixel={lens.perPixel}
        width={Math.ceil(to - from)}
        height={height}
        edge={selected ? 'var(--ink)' : hand.drag ? 'var(--deep)' : 'var(--hair)'}
        lit={selected}
      />
      <Fades clip={clip} lens={lens} height={height} open={roomy && selected && !hand.drag} />
      <SwellCurve
        clip={clip}
        start={start}
        left={from}
        lens={lens}
        height={height}
        open={roomy && selected}
      />
      <CutMarks clip={clip.id} left={from} lens={lens} height={height} />
      {work && <WorkOnClip work={work} width={to - from} />}
      {treated && <Treated off={treated.chain.bypass} width={to - from} height={height} />}
      {clip.take && <TakeStack clip={clip} row={row} start={start} width={to - from} />}
      {roomy && from > 0 && to - from > 56 && <ClipName clip={clip} />}
      <span className="pointer-events-none absolute bottom-0.5 left-0.5">
        <RemarkOn node={clip.id} />
      </span>
    </div>
  )
}

const cursors = { move: 'grab', begin: 'ew-resize', end: 'ew-resize', slip: 'col-resize' }
