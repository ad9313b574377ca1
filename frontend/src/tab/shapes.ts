/** A chord shape as a small picture: strings upright, the thickest on the left, fingers as numbers. */
import type { Part } from '../api/client'
import { disc, path, text, type Mark } from './marks'

type Shape = Part['shapes'][number]

const GAP = 8.4
const FRET = 11
const FRETS = 4
const TOP = 25 // of the first fret's line: over it the name and what is open
export const SHAPE_HEIGHT = TOP + FRETS * FRET + 6

export function shapeWidth(shape: Shape): number {
  return shape.frets.length * GAP + 12
}

/** The picture with its middle at x and its top at y. */
export function shapeMarks(shape: Shape, x: number, y: number): Mark[] {
  const strings = shape.frets.length
  const left = x - ((strings - 1) * GAP) / 2
  const xOf = (index: number) => left + (strings - 1 - index) * GAP
  const highest = Math.max(...shape.frets.map((fret) => fret ?? 0))
  const first = highest <= FRETS ? 1 : shape.first_fret
  const yOf = (fret: number) => y + TOP + (fret - first + 0.5) * FRET
  const right = xOf(0)
  const rows = Array.from({ length: FRETS + 1 }, (_, fret) => `M${left} ${y + TOP + fret * FRET}H${right}`)
  const columns = shape.frets.map((_, index) => `M${xOf(index)} ${y + TOP}v${FRETS * FRET}`)
  const marks: Mark[] = [path('shape', 'thin', [...rows, ...columns].join(''))]
  if (shape.name) marks.push(text('shape name', 'shape-name', x, y + 10, shape.name))
  if (first === 1) marks.push(path('nut', 'bold', `M${left} ${y + TOP}H${right}`))
  else marks.push(text('first fret', 'finger-out', left - 5, yOf(first) + 3, String(first), 'end'))
  marks.push(...barres(shape, xOf, yOf))
  shape.frets.forEach((fret, index) => {
    const at = xOf(index)
    if (fret === null)
      marks.push(path('not played', 'thin', `M${at - 2.4} ${y + 16}l4.8 4.8m0 -4.8l-4.8 4.8`))
    else if (fret === 0) marks.push(path('open string', 'thin', disc(at, y + 18.5, 2.5)))
    else {
      marks.push(path('pressed', 'fill', disc(at, yOf(fret), 4.3)))
      marks.push(text('finger', 'finger-in', at, yOf(fret) + 2.8, shape.fingers[index]))
    }
  })
  return marks
}

/** A finger on several strings at one fret lies across them. */
function barres(shape: Shape, xOf: (index: number) => number, yOf: (fret: number) => number): Mark[] {
  return [...new Set(shape.fingers.filter(Boolean))].flatMap((finger) => {
    const on = shape.fingers.flatMap((each, index) => (each === finger ? [index] : []))
    const fret = shape.frets[on[0]] ?? 0
    if (on.length < 2 || on.some((index) => shape.frets[index] !== fret)) return []
    const [from, to] = [xOf(on[on.length - 1]), xOf(on[0])]
    return [path('barre', 'fill', `M${from} ${yOf(fret) - 3.6}H${to}v7.2H${from}z`)]
  })
}

/** What the picture shows, in words. */
export function shapeWords(shape: Shape): string {
  const strings = shape.frets.map((fret, index) => {
    const where = fret === null ? 'not played' : fret === 0 ? 'open' : `fret ${fret}`
    return `string ${index + 1} ${where}${shape.fingers[index] ? ` finger ${shape.fingers[index]}` : ''}`
  })
  return `${shape.name || 'shape'}: ${strings.reverse().join(', ')}`
}
