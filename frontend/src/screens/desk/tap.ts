/** A tempo from taps: one a quarter note, the middle gap counts, so that one late tap does no harm. */
const FEWEST_TAPS = 4

/** Quarters a minute, or null before there are enough taps; `taps` are times in ms. */
export function tappedTempo(taps: number[]): number | null {
  if (taps.length < FEWEST_TAPS) return null
  const gaps = taps
    .slice(1)
    .map((time, at) => time - taps[at])
    .sort((a, b) => a - b)
  const middle = (gaps[Math.floor((gaps.length - 1) / 2)] + gaps[Math.ceil((gaps.length - 1) / 2)]) / 2
  return Math.min(Math.max(Math.round(60000 / middle), 10), 400)
}
