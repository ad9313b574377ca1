/** The Desk's keys, from the words of what they do; the list on `?` is made from this table. */
import { layers, setLayer } from '../../tab/layers.svelte'
import type { DeskState } from './desk.svelte'

export interface DeskKey {
  keys: string
  does: string
  match: (event: KeyboardEvent) => boolean
  act: (desk: DeskState, tools: DeskTools, event: KeyboardEvent) => void
}
export interface DeskTools {
  playOrStop: () => void
  toggleLoop: () => void
  print: () => void
  showKeys: () => void
  setUp: () => void
  tap: () => void
  finger: (key: string) => void
  nextChunk: (by: 1 | -1) => void
  hear: (key: string) => void
  cut: () => void
  again: () => void
  slower: () => void
  otherWriting: () => void
}

const plain = (key: string) => (event: KeyboardEvent) => event.key === key && !event.shiftKey

export const DESK_KEYS: DeskKey[] = [
  { keys: 'Space', does: 'play or stop', match: plain(' '), act: (_, tools) => tools.playOrStop() },
  { keys: '→', does: 'next note', match: plain('ArrowRight'), act: (desk) => desk.moveNote(1) },
  { keys: '←', does: 'note before', match: plain('ArrowLeft'), act: (desk) => desk.moveNote(-1) },
  { keys: '↓', does: 'next bar', match: plain('ArrowDown'), act: (desk) => desk.moveBar(1, false) },
  { keys: '↑', does: 'bar before', match: plain('ArrowUp'), act: (desk) => desk.moveBar(-1, false) },
  {
    keys: 'Shift →',
    does: 'choose one note more',
    match: (e) => e.key === 'ArrowRight' && e.shiftKey,
    act: (desk) => desk.moveNote(1, true),
  },
  {
    keys: 'Shift ←',
    does: 'choose one note less',
    match: (e) => e.key === 'ArrowLeft' && e.shiftKey,
    act: (desk) => desk.moveNote(-1, true),
  },
  {
    keys: 'Shift ↓',
    does: 'choose one bar more',
    match: (e) => e.key === 'ArrowDown' && e.shiftKey,
    act: (desk) => desk.moveBar(1, true),
  },
  {
    keys: 'Shift ↑',
    does: 'choose one bar less',
    match: (e) => e.key === 'ArrowUp' && e.shiftKey,
    act: (desk) => desk.moveBar(-1, true),
  },
  {
    keys: '1 - 4, T',
    does: 'pin the chosen note to this finger, or the thumb',
    match: (e) => /^[1-4tT]$/.test(e.key),
    act: (_, tools, e) => tools.finger(e.key.toUpperCase()),
  },
  {
    keys: '0',
    does: 'let the chosen note be fingered again',
    match: plain('0'),
    act: (_, tools) => tools.finger('0'),
  },
  {
    keys: 'N',
    does: 'next place of what comes back',
    match: (e) => e.key.toLowerCase() === 'n',
    act: (desk) => desk.nextPlace(),
  },
  { keys: 'P', does: 'print', match: (e) => e.key.toLowerCase() === 'p', act: (_, tools) => tools.print() },
  {
    keys: 'R',
    does: 'repeat the chosen bars, or stop repeating',
    match: (e) => e.key.toLowerCase() === 'r',
    act: (_, tools) => tools.toggleLoop(),
  },
  {
    keys: 'J, K',
    does: 'next chunk, chunk before',
    match: (e) => /^[jk]$/i.test(e.key),
    act: (_, tools, e) => tools.nextChunk(e.key.toLowerCase() === 'j' ? 1 : -1),
  },
  {
    keys: 'U, I, O',
    does: 'hear what is new, all so far, the whole',
    match: (e) => /^[uio]$/i.test(e.key),
    act: (_, tools, e) => tools.hear(e.key.toLowerCase()),
  },
  {
    keys: 'X',
    does: 'cut a chunk before the chosen note, or join there again',
    match: (e) => e.key.toLowerCase() === 'x',
    act: (_, tools) => tools.cut(),
  },
  {
    keys: 'A',
    does: 'again, from its beginning',
    match: (e) => e.key.toLowerCase() === 'a',
    act: (_, tools) => tools.again(),
  },
  {
    keys: '-',
    does: 'slower; a tempo that rises by itself falls back',
    match: (e) => e.key === '-',
    act: (_, tools) => tools.slower(),
  },
  { keys: '+', does: 'faster', match: (e) => e.key === '+' || e.key === '=', act: (desk) => desk.quicken(5) },
  {
    keys: 'V',
    does: 'the easier version at the same place, or the original again',
    match: (e) => e.key.toLowerCase() === 'v',
    act: (_, tools) => tools.otherWriting(),
  },
  {
    keys: 'F',
    does: 'fingers shown or hidden',
    match: (e) => e.key.toLowerCase() === 'f',
    act: () => setLayer('fingers', !layers.fingers),
  },
  {
    keys: 'C',
    does: 'counts shown or hidden',
    match: (e) => e.key.toLowerCase() === 'c',
    act: () => setLayer('counts', !layers.counts),
  },
  {
    keys: 'B',
    does: 'beat: tap the tempo, once a quarter note',
    match: (e) => e.key.toLowerCase() === 'b',
    act: (_, tools) => tools.tap(),
  },
  {
    keys: 'W',
    does: 'written text opened or closed',
    match: (e) => e.key.toLowerCase() === 'w',
    act: (desk) => void (desk.textOpen = !desk.textOpen),
  },
  {
    keys: 'G',
    does: 'the guitar made ready, string by string',
    match: (e) => e.key.toLowerCase() === 'g',
    act: (_, tools) => tools.setUp(),
  },
  { keys: 'Esc', does: 'the whole song again', match: plain('Escape'), act: (desk) => desk.showAll() },
  { keys: '?', does: 'this list', match: (e) => e.key === '?', act: (_, tools) => tools.showKeys() },
]

// An open list has the arrows to itself, wherever the focus is.
const OPEN_LISTS = '[role=listbox], [role=menu], .float, [aria-expanded=true][aria-haspopup]'
const FIELDS = `input, select, textarea, .cm-editor, [role=dialog], ${OPEN_LISTS}`

/** Whether a key pressed there belongs to a field and not to the Desk. */
export function belongsToField(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement
  if (event.ctrlKey || event.metaKey || event.altKey) return true
  if (target.closest(FIELDS)) return true
  return target.closest('button:not([data-bar]), a') !== null && (event.key === ' ' || event.key === 'Enter')
}
