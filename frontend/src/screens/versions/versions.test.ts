import { describe, expect, it } from 'vitest'
import type { Edit, Version } from '../../api/client'
import { alikes, barsOf, choice, grouped, staircasesTo } from './versions.svelte'

function edit(id: number, change: Partial<Edit> = {}): Edit {
  return {
    id,
    kind: 'pick',
    does: 'slurred notes picked',
    bars: [1],
    loss: 1,
    builds_on: [],
    alike: id,
    refused: false,
    refused_itself: false,
    reason: '',
    effect: '',
    says: '',
    ...change,
  }
}
const version = (edits: Edit[]): Version => ({ edits }) as unknown as Version

describe('staircases', () => {
  it('lead up to the original, and no further', () => {
    expect(staircasesTo(5.2)).toEqual([
      [2, 4],
      [3, 5],
      [2, 3, 4, 5],
    ])
    expect(staircasesTo(2.5)).toEqual([[2]])
    expect(staircasesTo(1.5)).toEqual([])
  })
})

describe('the list of edits', () => {
  it('groups by kind and by bar, with the loss of the group', () => {
    const edits = [edit(1), edit(2, { bars: [2], does: 'ornaments left out' }), edit(3, { refused: true })]
    expect(
      grouped(edits, 'kind').map((group) => [group.name, group.edits.length, group.loss, group.refused]),
    ).toEqual([
      ['slurred notes picked', 2, 2, false],
      ['ornaments left out', 1, 1, false],
    ])
    expect(grouped(edits, 'bar').map((group) => group.name)).toEqual(['Bar 1', 'Bar 2'])
  })
  it('tells together what is the same in several bars', () => {
    const edits = [edit(1), edit(2, { bars: [9] }), edit(3, { bars: [5], alike: 1 })]
    expect(alikes(edits).map((row) => [barsOf(row), row.map((each) => each.id)])).toEqual([
      ['bars 1, 5', [1, 3]],
      ['bar 9', [2]],
    ])
  })
  it('refuses what is chosen and keeps what was refused before', () => {
    const edits = [edit(1, { refused: true, refused_itself: true }), edit(2)]
    expect(choice(version(edits), [edits[1]], true).sort()).toEqual([1, 2])
  })
  it('takes back a refusal without leaving behind what only fell with it', () => {
    const edits = [
      edit(1, { refused: true, refused_itself: true }),
      edit(2, { refused: true, builds_on: [1] }),
    ]
    expect(choice(version(edits), [edits[0]], false)).toEqual([])
    expect(choice(version(edits), [edits[1]], false)).toEqual([])
  })
})
