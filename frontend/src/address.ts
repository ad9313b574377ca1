/** What is chosen on a screen stands in its address: a reload and the way back find it again. */

/** What the address says, by name. */
export function fromAddress(hash = location.hash): Record<string, string> {
  return Object.fromEntries(new URLSearchParams(hash.split('?')[1] ?? ''))
}

/** The address with these values in it; empty ones are left out. */
export function withValues(hash: string, values: Record<string, string | number>): string {
  const said = Object.entries(values).filter(([, value]) => value !== '')
  const params = new URLSearchParams(said.map(([name, value]) => [name, String(value)])).toString()
  return (hash.split('?')[0] || '#/') + (params ? `?${params}` : '')
}

/** Put values into the address of the screen that is shown, without a step in the way back. */
export function intoAddress(values: Record<string, string | number>): void {
  const next = withValues(location.hash, values)
  if (next !== location.hash) history.replaceState(history.state, '', next)
}

/** A whole number from the address, where it is one. */
export function numberOf(text: string | undefined, otherwise: number): number {
  return text !== undefined && /^\d{1,6}$/.test(text) ? Number(text) : otherwise
}
