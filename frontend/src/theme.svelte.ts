/** Light or dark: the reader's choice, else the system's. */
const KEY = 'clear-steps-theme'

export type Theme = 'light' | 'dark'

function initial(): Theme {
  const kept = localStorage.getItem(KEY)
  if (kept === 'light' || kept === 'dark') return kept
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light'
}

export const theme = $state<{ name: Theme }>({ name: initial() })

export function applyTheme(): void {
  document.documentElement.dataset.theme = theme.name
}

export function toggleTheme(): void {
  theme.name = theme.name === 'dark' ? 'light' : 'dark'
  localStorage.setItem(KEY, theme.name)
  applyTheme()
}
