import { describe, expect, it } from 'vitest'
import type { Bar, Event, Figure, FigurePlace, Note, Part } from '../api/client'
import { alignedParts, columnsOf } from './aligned'
import { figureName } from './brackets'
import { engraved } from './engrave'
import { fingerRow } from './fingers'
import type { Mark } from './marks'
import { tones } from './marks'
import { EVERY_LAYER, spacingOf } from './spacing'
import { lines, MARGIN, systemsOf } from './systems'

const VALUES: Record<string, number> = { w: 4, h: 2, q: 1, e: 0.5, s: 0.25, t: 0.125 }

/** `q. e3 Rh =q`: an event a value. */
function bar(index: number, text: string, more: Partial<Bar> = {}): Bar {
  let onset = 0
  const events = text.split(' ').map((written) => {
    const [, sign, value, dots, tuplet] = /^([R=]?)([whqest])(\.*)([357]?)$/.exec(written)!
    const ratio = tuplet ? 2 ** Math.floor(Math.log2(+tuplet - 1)) / +tuplet : 1
    const quarters = VALUES[value] * (2 - 0.5 ** dots.length) * ratio
    const event = {
      onset_quarters: onset,
      quarters,
      lengths: [{ value, dots: dots.length, tuplet: Number(tuplet || 0), quarters }],
      notes: sign === 'R' ? [] : [note({ tied: sign === '=', sounding_quarters: quarters })],
      chord: '',
      recognised: '',
      change: null,
      remark: '',
      count: '',
      how: [],
      own_techniques: [],
      words_by_string: [],
      position: null,
    } as unknown as Event
    onset += quarters
    return event
  })
  const rest = { metre: '4/4', beat_quarters: 1, groups: [1, 1, 1, 1], starts_at: 0, number: index + 1 }
  return {
    index,
    quarters: onset,
    events,
    endings: [],
    repeat_times: 0,
    tempo: null,
    ...rest,
    ...more,
  } as Bar
}

function note(more: Partial<Note> = {}): Note {
  const plain = { string: 2, fret: 3, techniques: [], bend_half_tones: null, bend_released: false }
  return { ...plain, tied: false, finger: null, picking: null, sounding_quarters: 1, ...more } as Note
}

function part(bars: Bar[], starts: number[] = []): Part {
  const sections = starts.map((first_bar) => ({ name: 'A', first_bar, times: 1 }))
  return {
    bars,
    sections,
    shape_places: [],
    figures: [],
    neck: { string_letters: ['E', 'A', 'D', 'G', 'B', 'E'] },
  } as unknown as Part
}

function marksOf(...bars: Bar[]): Mark[] {
  const own = part(bars)
  const [system] = systemsOf([own], 2000, EVERY_LAYER)
  return engraved([own], system, EVERY_LAYER).rows[0].marks
}
const named = (marks: Mark[], name: string): Mark[] => marks.filter((mark) => mark.name.startsWith(name))

describe('the lines of a tab', () => {
  const eighths = 'e e e e e e e e'
  it('shows four bars of eighths at the width the Desk has at 1280', () => {
    const systems = systemsOf([part([0, 1, 2, 3].map((index) => bar(index, eighths)))], 832, EVERY_LAYER)
    expect(systems.map((system) => system.widths.length)).toEqual([4])
  })
  it('fills a line, keeps every bar once, and begins a new one at a section', () => {
    const bars = Array.from({ length: 9 }, (_, index) => bar(index, eighths))
    const systems = systemsOf([part(bars, [0, 5])], 900, EVERY_LAYER)
    expect(systems.flatMap(({ first, last }) => bars.slice(first, last + 1))).toEqual(bars)
    expect(systems.some(({ first }) => first === 5)).toBe(true)
    const full = systems.find(({ widths }) => widths.length > 2)!
    expect(full.widths.reduce((sum, width) => sum + width, 0)).toBeCloseTo(900 - MARGIN - 2)
  })
  it.each([
    [[200, 200, 200, 200], 790, [2, 2]],
    [[200, 200, 200, 200], 800, [4]],
    [[300, 100, 100, 200, 300], 500, [3, 2]],
    [[900, 100], 500, [1, 1]],
    [[], 500, []],
  ])('puts bars of widths %j on lines of %i as %j', (widths, room, counts) => {
    expect(lines(widths, room)).toEqual(counts)
  })
  it('gives more notes, and words for some strings, more room', () => {
    const width = (each: Bar) => spacingOf([each], EVERY_LAYER).width
    expect(width(bar(1, eighths))).toBeGreaterThan(width(bar(1, 'q q q q')))
    const worded = bar(1, 'q q q q')
    for (const event of worded.events) event.words_by_string = ['PM:6', 'lr:1']
    expect(width(worded)).toBeGreaterThan(width(bar(1, 'q q q q')) + 100)
  })
  it('puts the same beats of two parts under one another, and a part that has ended is silent', () => {
    const [upper, lower] = alignedParts([part([bar(0, 'q q q q'), bar(1, 'w')]), part([bar(0, eighths)])])
    const [system] = systemsOf([upper, lower], 900, EVERY_LAYER)
    const rows = engraved([upper, lower], system, EVERY_LAYER).rows
    expect(rows[0].bars[0].events[1].x).toBeCloseTo(rows[1].bars[0].events[2].x)
    expect(named(rows[1].marks, 'rest whole bar')).toHaveLength(1)
  })
})

describe('parts of uneven length', () => {
  const named = (bars: number, ...sections: [string, number][]): Part =>
    ({
      ...part(Array.from({ length: bars }, (_, index) => bar(index, 'w'))),
      sections: sections.map(([name, first_bar]) => ({ name, first_bar, times: 1 })),
    }) as unknown as Part
  it('stand by the names of their sections, silent where they have nothing', () => {
    const long = named(5, ['Verse', 0], ['Bridge', 2], ['End', 4])
    const short = named(3, ['verse', 0], ['End', 2])
    expect(columnsOf([short, long])).toEqual([
      [0, 1, -1, -1, 2],
      [0, 1, 2, 3, 4],
    ])
    expect(alignedParts([short, long])[0].bars[2].events).toEqual([])
  })
  it('stand bar beside bar where no sections are named', () => {
    expect(columnsOf([named(1), named(2)])).toEqual([
      [0, -1],
      [0, 1],
    ])
  })
})

describe('the rhythm line', () => {
  it('tells every length from every other', () => {
    const looks = ['w', 'h.', 'h', 'q.', 'q', 'e', 's', 't'].map((value) =>
      marksOf(bar(1, `${value} Rq`))
        .filter((mark) => /^(head|stem|dot|flag)/.test(mark.name))
        .map((mark) => `${mark.name} ${'d' in mark ? mark.kind : ''}`)
        .join(),
    )
    expect(new Set(looks).size).toBe(looks.length)
    expect(looks[0]).toBe('head whole open')
    expect(looks[2]).toBe('head half open,stem line')
  })
  it.each([
    ['e e e e e e e e', [1, 1, 1, 1], 4],
    ['e e e e e e e', [1, 1, 1.5], 3],
    ['e e e e e e', [1.5, 1.5], 2],
    ['e q e q q', [1, 1, 1, 1], 0],
    ['s s e e Re e e q', [1, 1, 1, 1], 2],
  ])('beams %s by the groups %j', (text, groups, count) => {
    expect(named(marksOf(bar(1, text, { groups })), 'beam 1')).toHaveLength(count)
  })
  it('beams a pickup where its notes stand in the metre', () => {
    expect(named(marksOf(bar(0, 'e e e', { starts_at: 2.5 })), 'beam 1')).toHaveLength(1)
  })
  it.each([
    ['e3 e3 e3 q q q', ['3']],
    ['q3 e3 q3 q3 q3', ['3', '3']],
    ['s5 s5 s5 s5 s5 q q q', ['5']],
    ['s3 s3 s3 s3 s3 s3 q q q', ['6']],
    ['e3 e3 e3 e3 e3 e3 h', ['3', '3']],
  ])('writes the digits of %s', (text, digits) => {
    const found = named(marksOf(bar(1, text)), 'tuplet').flatMap((mark) =>
      'text' in mark ? [mark.text] : [],
    )
    expect(found).toEqual(digits)
  })
  it('ties over a bar line, and into a line that goes on elsewhere', () => {
    expect(named(marksOf(bar(0, 'h. q'), bar(1, '=q h.')), 'tie')).not.toHaveLength(0)
    const own = part([bar(0, 'w'), bar(1, '=w')], [0, 1])
    const [first, second] = systemsOf([own], 900, EVERY_LAYER).map(
      (system) => engraved([own], system, EVERY_LAYER).rows[0].marks,
    )
    expect(named(first, 'tie').map((mark) => mark.name)).toEqual(['tie', 'tie out'])
    expect(named(second, 'tie').map((mark) => mark.name)).toEqual(['tie', 'tie on the string'])
  })
  it('draws a silent bar as one rest', () => {
    expect(marksOf(bar(1, 'Rh Rq Rq')).filter((mark) => mark.name.startsWith('rest'))).toHaveLength(1)
  })
})

describe('what stands on the strings', () => {
  const after = (first: Partial<Note>, second: Partial<Note>): Mark[] => {
    const own = bar(1, 'q q Rh')
    own.events[0].notes = [note(first)]
    own.events[1].notes = [note(second)]
    return marksOf(own)
  }
  const xs = (mark: Mark): number[] =>
    ('d' in mark ? [...mark.d.matchAll(/[M ]([\d.]+) [\d.]+/g)] : []).map(([, x]) => +x)

  it('slurs from the note before, or shortly from nowhere', () => {
    const [joined] = named(after({}, { techniques: ['hammer_on'] }), 'hammer_on')
    const [alone] = named(after({ string: 4 }, { techniques: ['hammer_on'] }), 'hammer_on')
    expect(xs(joined)[0]).toBeLessThan(xs(alone)[0])
  })
  it('draws a bend at its own note, with its figure over the strings', () => {
    const marks = after({ bend_half_tones: 0.5 }, { fret: 0 })
    const [figure] = named(marks, 'bend ¼ figure')
    const [fret] = named(marks, 'fret 2 3')
    const [next] = named(marks, 'fret 2 0')
    const x = (mark: Mark) => ('text' in mark ? mark.x : NaN)
    expect(x(figure)).toBeGreaterThan(x(fret))
    expect(x(figure)).toBeLessThan(x(next) - 8)
  })
  it('writes no number for a note that is tied on', () => {
    const marks = after({}, { tied: true })
    expect(named(marks, 'fret')).toHaveLength(1)
    expect(named(marks, 'tie on the string')).toHaveLength(1)
  })
  it('names bends in whole tones', () => {
    expect([0.5, 1, 1.5, 2, 3, 4].map(tones)).toEqual(['¼', '½', '¾', '1', '1½', '2'])
  })
})

describe('the fingers under the tab', () => {
  const grip = (...notes: [string: number, fret: number, finger: string | null][]): Event =>
    ({
      notes: notes.map(([string, fret, finger]) => ({ string, fret, finger, tied: false })),
    }) as unknown as Event
  const barre: Parameters<typeof grip> = [
    [1, 1, '1'],
    [2, 1, '1'],
    [3, 2, '2'],
    [4, 3, '4'],
    [5, 3, '3'],
    [6, 1, '1'],
  ]

  it('names a barre once and a grip only when it changes', () => {
    expect(
      fingerRow([grip(...barre), grip(...barre), grip([5, 3, '3'], [1, 0, null]), grip(...barre)]),
    ).toEqual(['1243', '', '3', '1243'])
  })
  it('names every single note, and a grip held over a rest not again', () => {
    expect(fingerRow([grip([1, 3, '1']), grip([1, 3, '1'])])).toEqual(['1', '1'])
    expect(fingerRow([grip(...barre), grip(), grip(...barre)])).toEqual(['1243', '', ''])
  })
})

describe('brackets over what comes back', () => {
  const at = (bar: number, event: number) => ({ bar, event })
  const place = (like: string, bar: number, more: Partial<FigurePlace> = {}) =>
    ({ like, first: at(bar, 0), last: at(bar, 3), but: [], where: '', words: '', ...more }) as FigurePlace
  const figure = (places: FigurePlace[], within = false) =>
    ({ places, within, times: places.length, strings: [], words: '' }) as Figure
  const drawn = (...figures: Figure[]): Mark[] => {
    const own = { ...part([0, 1, 2].map((index) => bar(index, 'q q q q'))), figures }
    const [system] = systemsOf([own], 2000, EVERY_LAYER)
    return engraved([own], system, EVERY_LAYER).rows[0].marks
  }
  const names = (marks: Mark[]) => named(marks, 'figure name').map((mark) => mark.name.slice(12))

  it('name every place alike, with a dash where it is not the same', () => {
    const moved = place('moved', 2)
    expect(names(drawn(figure([place('first', 0), place('equal', 1), moved])))).toEqual(['a', 'a', 'a′'])
  })
  it('have a notch at every moment that differs', () => {
    const other = place('equal', 1, { but: [at(1, 1), at(1, 3)] })
    expect(named(drawn(figure([place('first', 0), other])), 'differs here')).toHaveLength(2)
  })
  it('lie over one another where figures do, and leave out those within others', () => {
    const rows = figure([place('first', 0), place('equal', 2)])
    const both = drawn(rows, figure([place('first', 0), place('equal', 1)]))
    const heights = new Set(named(both, 'figure name').map((mark) => 'y' in mark && mark.y))
    expect(heights.size).toBe(2)
    expect(names(drawn({ ...rows, within: true }))).toEqual([])
  })
  it('are left out where parts stand under one another, each with letters of its own', () => {
    const own = {
      ...part([bar(0, 'q q q q'), bar(1, 'q q q q')]),
      figures: [figure([place('first', 0), place('equal', 1)])],
    }
    const [system] = systemsOf([own, own], 2000, EVERY_LAYER)
    for (const row of engraved([own, own], system, EVERY_LAYER).rows)
      expect(named(row.marks, 'figure name')).toEqual([])
  })
  it('are named by letters, as many as there are', () => {
    expect([0, 25, 26, 52].map(figureName)).toEqual(['a', 'z', 'aa', 'aaa'])
  })
})
