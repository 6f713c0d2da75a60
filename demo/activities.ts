import { allTerm, building, calm, stair, trading } from './laterActivities'
import type { RichNode } from '#core/contributing/richText'
import type { ActivityKind } from '#core/kinds/kind'
import type { LexiconSettings } from '#core/kinds/lexicon/lexiconSettings'
import type { WikiSettings } from '#core/kinds/wiki/wikiSettings'
import type { ReviewSettings } from '#core/kinds/review/reviewSettings'
import type { TalkSettings } from '#core/contributing/talkSettings'
import type { ExpectationRule } from '#core/planning/expectations/rule'
import type { PhaseName } from '#core/planning/schedule'

export type Day = readonly [week: number, weekday: number, time: string]

export interface DemoActivity {
  readonly key: string
  readonly unit: number | null // null: all term
  readonly category: string
  readonly kind: ActivityKind
  readonly title: string
  readonly summary: string
  readonly brief: RichNode
  readonly state: 'draft' | 'scheduled' | 'published'
  readonly writeFirst: boolean
  readonly marked: boolean
  readonly opens: Day
  readonly phases: ReadonlyArray<readonly [PhaseName, Day, Day]>
  readonly rules: readonly ExpectationRule[]
  readonly starter?: RichNode
  readonly clip?: true // the demo's video stands at the end of the brief
  readonly scale?: 'points' | 'complete' | 'none'
  readonly rubric?: string // another than the seminar's own
  readonly groups?: string // key of the group plan it is for
  readonly prompts?: ReadonlyArray<readonly [Day, string]>
  readonly talk?: Partial<TalkSettings>
  readonly review?: Partial<ReviewSettings>
  readonly wiki?: Partial<WikiSettings>
  readonly lexicon?: Partial<LexiconSettings>
  readonly pointStep?: number // hundredths
}

export const text = (value: string): RichNode => ({ type: 'text', text: value })
const bold = (value: string): RichNode => ({ ...text(value), marks: [{ type: 'bold' }] })
export const p = (...content: RichNode[]): RichNode => ({ type: 'paragraph', content })
const list = (...items: string[]): RichNode => ({
  type: 'bulletList',
  content: items.map(item => ({ type: 'listItem', content: [p(text(item))] })),
})
export const doc = (...content: RichNode[]): RichNode => ({ type: 'doc', content })

export const units = [
  { title: 'Building', from: 1, to: 5 },
  { title: 'Trading', from: 5, to: 8 },
  { title: 'Remembering', from: 8, to: 12 },
] as const

export const categories = [
  ['Discussions', 30],
  ['Notebook', 15],
  ['Readings', 10],
  ['Wiki', 15],
  ['Reviews', 15],
  ['Letters', 10],
  ['Lexicon', 5],
] as const

export const rubric = {
  title: 'Seminar contribution',
  criteria: [
    {
      title: 'Use of evidence',
      max: 8,
      suggestFrom: null,
      levels: [
        [2, 'Asserts', 'States a view without a source, or names one without using it.'],
        [4, 'Refers', 'Points to a source that fits, in general terms.'],
        [6, 'Grounds', 'Rests the argument on a passage that is quoted or exactly described.'],
        [8, 'Tests', 'Sets sources against each other and says what each can and cannot show.'],
      ],
    },
    {
      title: 'Builds on others',
      max: 8,
      suggestFrom: null,
      levels: [
        [2, 'Stands alone', 'Could have been written without the discussion.'],
        [4, 'Responds', 'Agrees or disagrees with a classmate and says with what.'],
        [
          6,
          'Engages',
          "Takes up a classmate's point and extends, tests or qualifies it, naming what changes as a result.",
        ],
        [
          8,
          'Carries on',
          'Moves the discussion to a place it would not have reached, and brings others along.',
        ],
      ],
    },
    {
      title: 'Clarity of argument',
      max: 6,
      suggestFrom: null,
      levels: [
        [1, 'Unsorted', 'Has thoughts on the question; what is claimed is hard to tell.'],
        [2, 'Followable', 'Has a claim that a patient reader can find.'],
        [4, 'Clear', 'States its claim and keeps to it, step by step.'],
        [6, 'Compelling', 'Puts its claim so that one must answer it, and foresees the answer.'],
      ],
    },
    {
      title: 'Timeliness',
      max: 3,
      suggestFrom: 'timeliness',
      levels: [
        [0, 'After the talk', 'In when the others had finished.'],
        [2, 'Late', 'In late, while the talk was still going on.'],
        [3, 'On time', 'In by the due time, so that others could answer.'],
      ],
    },
  ],
} as const

const talkRules: readonly ExpectationRule[] = [
  { kind: 'entries', need: 1, minWords: 200, due: 'write' },
  { kind: 'replies', need: 3, minWords: 60, due: 'respond' },
]

const own: readonly DemoActivity[] = [
  {
    key: 'breakwater',
    unit: 0,
    category: 'Discussions',
    kind: 'discussion',
    state: 'published',
    writeFirst: true,
    marked: true,
    title: 'Who paid for the breakwater?',
    summary:
      'The wall at Sundvik was begun in 1609 and charged for from 1612. Say who paid for it, resting your answer on the toll roll; then answer three classmates.',
    brief: doc(
      p(
        text(
          "The breakwater at Sundvik was begun in 1609. From 1612 every hull above twenty lasts paid a toll for lying behind it. The guild's eleven barges, all measured at nineteen, paid nothing.",
        ),
      ),
      p(
        bold('Who paid for the breakwater?'),
        text(
          ' Answer in 200 words or more by Thursday of week 5, and rest your answer on one passage of the toll roll (pages 3 to 7) that you quote or describe exactly. Then answer at least three classmates.',
        ),
      ),
      list(
        'Say what you mean by paying.',
        'Say what your source cannot show.',
        'Where you disagree with someone, name the sentence.',
      ),
    ),
    starter: doc(
      p(
        text(
          'I begin with the sentence that everybody pays “who lies behind the wall”. Lies, not moors: one can lie there without a rope. That word lets in every hull that was only waiting for the wind. I do not know yet whether they paid. What would show it?',
        ),
      ),
    ),
    opens: [4, 1, '08:00'],
    phases: [
      ['write', [4, 1, '08:00'], [5, 4, '23:59']],
      ['respond', [5, 4, '23:59'], [5, 7, '23:59']],
      ['mark', [6, 1, '00:00'], [6, 7, '23:59']],
      ['return', [6, 7, '23:59'], [7, 5, '18:00']],
    ],
    rules: talkRules,
  },
  {
    key: 'dredge',
    unit: 1,
    category: 'Discussions',
    kind: 'discussion',
    state: 'published',
    writeFirst: true,
    marked: true,
    title: 'Should the harbour board dredge?',
    summary:
      "It is 1688, and Sundvik's board can pay for one thing: a winter's dredging or a new fish quay. Advise it from one interest; then answer three classmates who spoke for others.",
    brief: doc(
      p(
        text('It is the autumn of 1688. The harbour board of Sundvik can pay for one work only: '),
        bold("a winter's dredging"),
        text(' of the fairway, or '),
        bold('a new fish quay'),
        text(
          '. Take a seat in the room: speak for one interest, whichever you can make the best case for, and advise the board.',
        ),
      ),
      p(
        text(
          'Use at least one of the ballast book of 1686, the petition of 1687 with its nine marks, and the plan in the reader. Say who loses by your advice, and what you would offer them. Then answer three classmates who spoke for other interests than yours.',
        ),
      ),
      p(text("You will see the others' posts once your own is in.")),
    ),
    opens: [6, 1, '08:00'],
    phases: [
      ['write', [6, 1, '08:00'], [6, 4, '23:59']],
      ['respond', [6, 4, '23:59'], [6, 7, '23:59']],
      ['mark', [7, 1, '00:00'], [7, 7, '23:59']],
      ['return', [7, 7, '23:59'], [8, 5, '18:00']],
    ],
    rules: talkRules,
  },
  {
    key: 'pilot',
    unit: 1,
    category: 'Readings',
    kind: 'reading',
    state: 'scheduled',
    writeFirst: false,
    marked: false,
    title: 'A pilot remembers',
    summary:
      'A recording of four and a half minutes with its transcript: mark what the pilot cannot have seen for himself.',
    brief: doc(
      p(
        text(
          'An old pilot of Port Amara talks about the fever year. Listen once without stopping, then mark in the transcript what he cannot have seen himself.',
        ),
      ),
    ),
    opens: [7, 1, '08:00'],
    phases: [
      ['write', [7, 1, '08:00'], [7, 4, '23:59']],
      ['respond', [7, 4, '23:59'], [7, 7, '23:59']],
      ['mark', [8, 1, '00:00'], [8, 5, '18:00']],
    ],
    rules: [
      { kind: 'entries', need: 4, minWords: 20, due: 'write' },
      { kind: 'replies', need: 2, minWords: 20, due: 'respond' },
    ],
  },
  {
    key: 'essays',
    unit: 2,
    category: 'Reviews',
    kind: 'review',
    state: 'draft',
    writeFirst: false,
    marked: false,
    title: 'Draft essays',
    summary: 'A draft of your essay; three classmates read it without knowing whose it is.',
    brief: doc(
      p(
        text(
          'Hand in a draft of your essay. Three classmates will read it, and you will read three of theirs.',
        ),
      ),
    ),
    opens: [8, 1, '08:00'],
    phases: [
      ['write', [8, 1, '08:00'], [8, 7, '23:59']],
      ['review', [9, 1, '00:00'], [9, 7, '23:59']],
      ['mark', [10, 1, '00:00'], [10, 5, '18:00']],
    ],
    rules: [{ kind: 'entries', need: 1, minWords: 1200, due: 'write' }],
  },
  {
    key: 'letters',
    unit: 2,
    category: 'Letters',
    kind: 'blog',
    state: 'draft',
    writeFirst: false,
    marked: false,
    title: 'Letters home',
    summary: 'Write home from one of the three harbours, as somebody who works there.',
    brief: doc(
      p(
        text(
          'Write home from one of the three harbours, as somebody who works there. Your classmates may write back.',
        ),
      ),
    ),
    opens: [10, 1, '08:00'],
    phases: [
      ['write', [10, 1, '08:00'], [11, 7, '23:59']],
      ['respond', [12, 1, '00:00'], [12, 4, '23:59']],
      ['mark', [12, 5, '00:00'], [12, 7, '23:59']],
    ],
    rules: [{ kind: 'entries', need: 1, minWords: 400, due: 'write' }],
  },
]

const one = (key: string): DemoActivity => own.find(a => a.key === key)!

/** Everything on the term plan, in its order. */
export const activities: readonly DemoActivity[] = [
  ...building,
  one('breakwater'),
  ...trading.slice(0, 2),
  one('dredge'),
  stair,
  calm,
  one('pilot'),
  one('essays'),
  one('letters'),
  ...allTerm,
]
