/** How a Step is written and coloured; one place for every screen. */

export const HARDEST = 10

/** `4.6`. */
export function stepText(step: number): string {
  return step.toFixed(1)
}

/** The terrace a Step stands on, 1 to 10. */
export function terrace(step: number): number {
  return Math.min(HARDEST, Math.max(1, Math.round(step)))
}

export function stepColour(step: number): string {
  return `var(--step-${terrace(step)})`
}

/** Numbers stand in ink on the light terraces, in paper on the deep ones. */
export function onStepColour(step: number): string {
  return terrace(step) <= 6 ? 'var(--on-light-step)' : 'var(--on-deep-step)'
}
