/** Signs of the measures and the curves of the ladder that belong to each: made from the rows of the core. */
import rows from '../rows.json'

const FIELDS = rows.measures

/** The sign of every measure, drawn in a box of 16 by 16; the legend and the climb use the same. */
export const MEASURE_SIGNS: Record<string, string> = Object.fromEntries(
  FIELDS.map(({ name, sign }) => [name, sign]),
)

/** Which curves belong to a measure. */
export const CURVES: Record<string, string[]> = Object.fromEntries(
  FIELDS.map(({ name, curves }) => [name, curves.map((curve) => curve.name)]),
)

/** What a curve is for, in words. */
export const CURVE_WORDS: Record<string, string> = Object.fromEntries(
  FIELDS.flatMap(({ curves }) => curves.map((curve) => [curve.name, curve.words])),
)
