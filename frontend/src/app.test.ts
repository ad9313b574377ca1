/** AA contrast of every pair of colours that meet, read from the tokens themselves. */
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { onStepColour, terrace } from './components/steps'

const css = readFileSync(new URL('./app.css', import.meta.url), 'utf8')
const [, light, dark] = /:root \{([^}]*)\}\s*:root\[data-theme='dark'\] \{([^}]*)\}/.exec(css)!

function tokens(block: string): Record<string, string> {
  return Object.fromEntries(
    [...block.matchAll(/--([\w-]+):\s*(#[0-9a-f]{6})/g)].map(([, name, colour]) => [name, colour]),
  )
}
const themes = { light: tokens(light), dark: { ...tokens(light), ...tokens(dark) } }

function luminance(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const part = parseInt(colour.slice(at, at + 2), 16) / 255
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}
function contrast(a: string, b: string): number {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y)
  return (high + 0.05) / (low + 0.05)
}

describe.each(Object.entries(themes))('%s', (_, theme) => {
  it.each(['ink', 'quiet', 'changed', 'past-hand'])('%s reads on paper and on raised paper', (name) => {
    expect(contrast(theme[name], theme.paper)).toBeGreaterThanOrEqual(4.5)
    expect(contrast(theme[name], theme.raised)).toBeGreaterThanOrEqual(4.5)
  })
  it.each([1, 2, 3, 4, 5, 6, 7, 8, 9, 10])('the number reads on terrace %i', (step) => {
    const on = /--([\w-]+)/.exec(onStepColour(step))![1]
    expect(contrast(theme[on], theme[`step-${terrace(step)}`])).toBeGreaterThanOrEqual(4.5)
  })
})
