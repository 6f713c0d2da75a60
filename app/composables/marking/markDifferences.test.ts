import { describe, expect, it } from 'vitest'
import type { RubricView } from '#shared/contributing/activity'
import { joinMarks, markDifferences } from './markDifferences'

const doc = (text: string) => ({
  type: 'doc',
  content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
})
const mark = (part: object = {}) => ({
  steps: [
    { criterionId: 'c1', levelId: 'high', points: 800 },
    { criterionId: 'c2', levelId: 'low', points: 200 },
  ],
  ownSteps: [],
  citations: [],
  letter: doc('Dear Liv'),
  markerNote: '',
  lateWaived: false,
  excusedFrom: [],
  override: null,
  files: [],
  ...part,
})
const levels = [
  { id: 'high', title: 'Fully' },
  { id: 'low', title: 'In part' },
]
// the parts of a rubric that are read here
const rubric = {
  criteria: [
    { id: 'c1', title: 'Sources', levels },
    { id: 'c2', title: 'Answers', levels },
  ],
} as unknown as RubricView

describe('two versions of a mark', () => {
  it('differ in nothing when they are the same', () => {
    expect(markDifferences(mark(), mark(), rubric)).toEqual([])
  })

  it('are shown by what differs and by nothing else, criterion by criterion', () => {
    const theirs = mark({
      steps: [{ criterionId: 'c1', levelId: 'high', points: 800 }],
      letter: doc('Dear Ms Brandt'),
      override: { points: 1900, reason: 'a gift' },
    })
    expect(markDifferences(mark(), theirs, rubric)).toEqual([
      { key: 'step:c2', title: 'Answers', mine: 'In part, 2', theirs: 'no step' },
      { key: 'letter', title: 'Letter', mine: 'Dear Liv', theirs: 'Dear Ms Brandt' },
      { key: 'override', title: 'Points set by hand', mine: 'not set', theirs: '19' },
    ])
  })

  it('are shown where there is no rubric, too', () => {
    const theirs = mark({ steps: [], override: { points: 500, reason: '' } })
    expect(markDifferences(mark({ steps: [] }), theirs, null)).toEqual([
      { key: 'override', title: 'Points set by hand', mine: 'not set', theirs: '5' },
    ])
  })

  it('become one, part by part as chosen', () => {
    const theirs = mark({
      steps: [{ criterionId: 'c1', levelId: 'low', points: 300 }],
      markerNote: 'theirs',
      letter: doc('theirs'),
    })
    const joined = joinMarks(mark({ markerNote: 'mine' }), theirs, new Set(['step:c1', 'letter']))
    expect(joined).toMatchObject({
      steps: [
        { criterionId: 'c1', levelId: 'low', points: 300 },
        { criterionId: 'c2', levelId: 'low', points: 200 },
      ],
      letter: doc('theirs'),
      markerNote: 'mine',
    })
  })

  it('that differ in every part are mine or theirs as a whole, where all of one is chosen', () => {
    const mine = mark()
    const theirs = mark({ steps: [], lateWaived: true, markerNote: 'x', letter: doc('y') })
    const every = new Set(markDifferences(mine, theirs, rubric).map(d => d.key))
    expect(joinMarks(mine, theirs, every)).toEqual(theirs)
    expect(joinMarks(mine, theirs, new Set())).toEqual(mine)
  })
})
