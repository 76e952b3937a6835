import { setView, view } from '../session/view'

/** What a remark is about: something by its id (empty: the song), one of its lines, a range in song frames. */
export type About = { at: string; param?: string; from: number; to: number }

/** What is selected now: a clip, what is on the bench, a row; and the range that is drawn. */
export function aboutNow(): About {
  const v = view()
  const range = v.piece ?? v.loop
  return {
    at: v.clips[0] || v.stage || v.channel,
    from: range ? Math.round(range.from) : 0,
    to: range ? Math.round(range.to) : 0,
  }
}

/** Opens the remarks, with one to be made about something. */
export const remarkOn = (about: About) => setView({ dialog: { kind: 'remarks', about } })

/** The remarks, about what is selected; again, about the same, puts them away. */
export function openRemarks() {
  const { dialog } = view()
  const about = aboutNow()
  const same = dialog?.kind === 'remarks' && JSON.stringify(dialog.about) === JSON.stringify(about)
  setView({ dialog: same ? null : { kind: 'remarks', about } })
}
