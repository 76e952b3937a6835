import { setView, type View, view } from '../session/view'

export const shownTheme = (): 'day' | 'night' => {
  const { theme } = view()
  if (theme !== 'system') return theme
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day'
}

export function applyTheme(theme: View['theme'] = view().theme) {
  setView({ theme })
  document.documentElement.dataset.theme = shownTheme()
  window.dispatchEvent(new Event('shoal-theme'))
}

export const turnTheme = () => applyTheme(shownTheme() === 'day' ? 'night' : 'day')

/** Shows the theme, and goes with the system where nothing else was chosen. */
export function beginTheme() {
  applyTheme()
  matchMedia('(prefers-color-scheme: dark)').addEventListener('change', () => applyTheme())
}
