/** Leaving the page asks only while something typed could not be kept as a draft. */
const unkept = new Set<object>()

export function askBeforeLeaving(owner: object, ask: boolean): void {
  if (ask) unkept.add(owner)
  else unkept.delete(owner)
}

if (typeof window !== 'undefined') {
  window.addEventListener('beforeunload', (event) => {
    if (unkept.size > 0) event.preventDefault()
  })
}
