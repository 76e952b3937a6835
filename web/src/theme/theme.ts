export type Theme = 'day' | 'night' | 'system'

const key = 'shoal.theme'

export const storedTheme = (): Theme => (localStorage.getItem(key) as Theme | null) ?? 'system'

export const shownTheme = (): 'day' | 'night' => {
  const t = storedTheme()
  if (t !== 'system') return t
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day'
}

export function applyTheme(t: Theme = storedTheme()) {
  localStorage.setItem(key, t)
  document.documentElement.dataset.theme = shownTheme()
  window.dispatchEvent(new Event('shoal-theme'))
}

matchMedia('(prefers-color-scheme: dark)').addEventListener('change', () => applyTheme())
