import { expect, test } from 'vitest'
import { draftBoxOf, TextDraft } from './textdraft.svelte'

test('a draft is taken up with the revision it began from', () => {
  draftBoxOf(1).keep('typed', 2)
  const draft = new TextDraft(1, { revision: 3, text: 'saved since' })
  expect([draft.text, draft.basedOn, draft.changed]).toEqual(['typed', 2, true])
})

test('a draft that says what is stored is let go, so that it opens nothing again', () => {
  draftBoxOf(2).keep('same', 1)
  const draft = new TextDraft(2, { revision: 2, text: 'same' })
  expect([draft.basedOn, draft.changed]).toEqual([2, false])
  expect(draftBoxOf(2).find()).toBeNull()
})

test('what is not touched follows the song, what is typed keeps its revision', () => {
  const draft = new TextDraft(3, { revision: 1, text: 'one' })
  draft.follow({ revision: 2, text: 'two' })
  expect([draft.text, draft.basedOn]).toEqual(['two', 2])
  draft.type('mine', { revision: 2, text: 'two' })
  draft.follow({ revision: 3, text: 'three' })
  expect([draft.text, draft.basedOn, draft.changed]).toEqual(['mine', 2, true])
})
