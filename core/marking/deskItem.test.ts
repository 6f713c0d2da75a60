import { describe, expect, it } from 'vitest'
import type { ActivityKind } from '#core/kinds/kind'
import { deskItemOf, type DeskItem, type DeskSnapshot } from './deskItem'

const bare = { title: null, answers: null, change: null, about: null, noted: null }
const note = { kind: 'question', where: 'page 3', isSet: false } as const

const CASES: ReadonlyArray<
  [what: string, item: Pick<DeskSnapshot, 'type'> & Partial<DeskSnapshot>, kind: ActivityKind, is: DeskItem]
> = [
  ['an opening post', { type: 'post' }, 'discussion', { is: 'entry', word: 'opening post', title: null }],
  [
    'a reply',
    { type: 'reply', answers: { name: 'Liv' } },
    'discussion',
    { is: 'answer', word: 'reply', to: 'Liv' },
  ],
  [
    'an answer to a question that staff put',
    { type: 'post', answers: { name: 'Ines' } },
    'discussion',
    { is: 'answer', word: 'reply', to: 'Ines' },
  ],
  ['an entry of a journal', { type: 'entry' }, 'journal', { is: 'entry', word: 'entry', title: null }],
  [
    'an entry of a blog',
    { type: 'entry', title: 'Tides' },
    'blog',
    { is: 'entry', word: 'entry', title: 'Tides' },
  ],
  [
    'a comment',
    { type: 'comment', answers: { name: 'Nico' } },
    'blog',
    { is: 'answer', word: 'comment', to: 'Nico' },
  ],
  ['an answer on the way out', { type: 'entry' }, 'exitNote', { is: 'entry', word: 'answer', title: null }],
  ['a term', { type: 'term', title: 'mole' }, 'lexicon', { is: 'term', title: 'mole' }],
  ['a work', { type: 'entry', title: 'Walls' }, 'review', { is: 'work' }],
  ['a review', { type: 'review', answers: { name: 'Liv' } }, 'review', { is: 'review', of: 'Liv' }],
  ['a review of a teammate', { type: 'review' }, 'review', { is: 'reviewOfTeammate' }],
  [
    'a version of a page',
    { type: 'pageVersion', change: { page: 'Harbour', number: 4 } },
    'wiki',
    { is: 'version', page: 'Harbour', number: 4 },
  ],
  [
    'a comment on a page, though it answers another',
    { type: 'comment', about: { page: 'Harbour' }, answers: { name: 'Liv' } },
    'wiki',
    { is: 'pageComment', page: 'Harbour' },
  ],
  ['a note in a margin', { type: 'note', noted: note }, 'reading', { is: 'note', ...note }],
  [
    'a reply in a margin',
    { type: 'reply', answers: { name: 'Liv' } },
    'reading',
    { is: 'answer', word: 'reply', to: 'Liv' },
  ],
]

describe('what lies on the desk', () => {
  it.each(CASES)('%s', (_, item, kind, is) => {
    expect(deskItemOf({ ...bare, ...item }, kind)).toEqual(is)
  })
})
