/** What a drawn system is made of: paths and texts, each with the name of what it stands for. */

/** How a mark looks; the component has one style a kind. */
export type PathKind = 'line' | 'thin' | 'bold' | 'changed' | 'gone' | 'fill' | 'open' | 'string'
export type TextKind =
  | 'fret'
  | 'small'
  | 'letter'
  | 'figure'
  | 'chord'
  | 'remark'
  | 'words'
  | 'quiet'
  | 'row'
  | 'pinned'
  | 'metre'
  | 'section'
  | 'shape-name'
  | 'finger-in'
  | 'finger-out'

export interface PathMark {
  name: string
  kind: PathKind
  d: string
}
export interface TextMark {
  name: string
  kind: TextKind
  x: number
  y: number
  text: string
  anchor: 'start' | 'middle' | 'end'
}
export type Mark = PathMark | TextMark

export function path(name: string, kind: PathKind, d: string): PathMark {
  return { name, kind, d }
}

export function text(
  name: string,
  kind: TextKind,
  x: number,
  y: number,
  content: string,
  anchor: TextMark['anchor'] = 'middle',
): TextMark {
  return { name, kind, x, y, text: content, anchor }
}

const LETTER_WIDTHS: Record<TextKind, number> = {
  fret: 7.9,
  small: 6.2,
  letter: 6,
  figure: 6.4,
  chord: 8,
  remark: 6.1,
  words: 6.3,
  quiet: 6.6,
  row: 7.3,
  pinned: 7.3,
  metre: 11,
  section: 7.4,
  'shape-name': 6.6,
  'finger-in': 5,
  'finger-out': 5,
}

/** Width of a text as a rule of thumb, px: what is drawn is laid out before there is a page to measure on. */
export function textWidth(kind: TextKind, content: string): number {
  return content.length * LETTER_WIDTHS[kind]
}

/** An arc from one point to another at one height, rising (up > 0) or falling. */
export function arc(from: number, to: number, y: number, up: number): string {
  const shoulder = Math.min(8, (to - from) / 3)
  return `M${from} ${y}C${from + shoulder} ${y - up} ${to - shoulder} ${y - up} ${to} ${y}`
}

/** A wavy line. */
export function wave(from: number, to: number, y: number): string {
  const bows = Math.max(2, Math.round((to - from) / 5))
  return `M${from} ${y}${Array.from({ length: bows }, (_, at) => `q2.5 ${at % 2 ? 4 : -4} 5 0`).join('')}`
}

/** Head of an arrow whose tip is here, pointing up (1) or down (-1). */
export function arrowHead(x: number, y: number, up: 1 | -1): string {
  return `M${x} ${y}l-3 ${6 * up}h6z`
}

/** A full circle. */
export function disc(x: number, y: number, radius: number): string {
  const half = `a${radius} ${radius} 0 1 0`
  return `M${x - radius} ${y}${half} ${2 * radius} 0${half} ${-2 * radius} 0z`
}

/** Bends and dips in whole tones, as players say them. */
export function tones(halfTones: number): string {
  const quarters = Math.round(halfTones * 2)
  const whole = Math.floor(quarters / 4)
  const rest = ['', '¼', '½', '¾'][quarters % 4]
  return `${whole || !rest ? whole : ''}${rest}`
}
