/** The row of fingers under the tab. */
import type { Event } from '../api/client'

/**
 * For every event of a bar its fingers from the highest string down, a barre once; empty where the hand
 * stays as it was.
 */
export function fingerRow(events: Pick<Event, 'notes'>[]): string[] {
  let before = ''
  return events.map(({ notes }) => {
    const fretted = notes.filter((note) => note.finger && !note.tied)
    const held = fretted.map((note) => `${note.string}.${note.fret}.${note.finger}`).join(' ')
    const same = held === before && fretted.length > 1 // of single notes each is named
    before = notes.length > 0 ? held : before
    return same ? '' : [...new Set(fretted.map((note) => note.finger))].join('')
  })
}
