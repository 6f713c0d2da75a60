import { TERM_CATEGORIES } from './texts/terms'
import type { RichNode } from '#core/contributing/richText'
import type { DemoActivity } from './activities'

// Planned, with their dates, audiences and rubrics; their own pages and contributions come with their kinds.
const doc = (...lines: string[]): RichNode => ({
  type: 'doc',
  content: lines.map(line => ({ type: 'paragraph', content: [{ type: 'text', text: line }] })),
})
const usual = { state: 'published', writeFirst: false, marked: true } as const

export const building: readonly DemoActivity[] = [
  {
    ...usual,
    key: 'arrive',
    unit: 0,
    category: 'Discussions',
    kind: 'discussion',
    scale: 'complete',
    marked: false,
    title: 'Where do you arrive from?',
    summary: 'A few lines: which water have you lived beside, and what came in over it?',
    brief: doc(
      'Before we begin: which water have you lived beside, and what came in over it? A few lines are enough. Answer one person whose water is unlike yours.',
    ),
    opens: [1, 1, '08:00'],
    phases: [
      ['write', [1, 1, '08:00'], [1, 7, '23:59']],
      ['mark', [2, 1, '00:00'], [2, 3, '18:00']],
    ],
    rules: [],
  },
  {
    ...usual,
    key: 'walls',
    unit: 0,
    category: 'Wiki',
    kind: 'wiki',
    rubric: 'Wiki, group and own',
    groups: 'walls',
    clip: true,
    title: 'Walls of Sundvik',
    summary:
      'In fours: five pages on the breakwater, from its stones to its toll, each claimed by one of you and read by all.',
    brief: doc(
      'In fours you write five pages on the breakwater at Sundvik: its stones, its builders, its money, its ships, its enemies. Each of you claims a page; all of you read all of them. Which of the five could the others not do without?',
    ),
    opens: [2, 1, '08:00'],
    phases: [
      ['write', [2, 1, '08:00'], [3, 7, '23:59']],
      ['revise', [4, 1, '00:00'], [4, 7, '23:59']],
      ['mark', [5, 1, '00:00'], [5, 7, '23:59']],
    ],
    rules: [],
    wiki: { keyWords: ['Stones', 'Builders', 'Money', 'Ships', 'Enemies'] },
  },
  {
    ...usual,
    key: 'shares',
    unit: 0,
    category: 'Wiki',
    kind: 'review',
    rubric: 'Teammate share',
    groups: 'walls',
    marked: false,
    scale: 'none',
    title: 'Each one’s share in the walls',
    summary:
      'Everyone in your group, and you yourself: who did what, and what would the pages lack without them?',
    brief: doc(
      'You have built five pages together. Say of each one in your group, and of yourself, what their share was. Your teammates read what you say about them, without your name; what you write to me alone stays with me. What would the pages lack without each of you?',
    ),
    opens: [4, 5, '08:00'],
    phases: [['review', [4, 5, '08:00'], [5, 2, '23:59']]],
    rules: [{ kind: 'reviews', need: 3, minWords: 5, due: 'review', everyone: true }],
    review: {
      subject: 'teammates',
      self: true,
      remarkWords: 0,
      together: true,
      helpful: false,
      questions: [
        {
          id: '0192b000-0000-7000-8000-000000000001',
          text: 'What would the pages lack without them?',
          model: null,
          minWords: 5,
        },
      ],
    },
  },
  {
    ...usual,
    key: 'tollroll',
    unit: 0,
    category: 'Readings',
    kind: 'reading',
    title: 'Reading the toll roll of 1612',
    summary: 'Pages 3 to 7 of the roll: who is named, who is counted, who is neither?',
    brief: doc(
      'Read pages 3 to 7 of the toll roll. Mark four passages: who is named, who is only counted, and who is neither? Answer two classmates in the margin.',
    ),
    opens: [3, 1, '08:00'],
    phases: [
      ['write', [3, 1, '08:00'], [3, 4, '23:59']],
      ['respond', [3, 4, '23:59'], [3, 7, '23:59']],
      ['mark', [4, 1, '00:00'], [4, 5, '18:00']],
    ],
    rules: [
      { kind: 'entries', need: 4, minWords: 8, due: 'write' },
      { kind: 'parts', need: 3, due: 'write' },
      { kind: 'replies', need: 2, minWords: 5, due: 'respond' },
    ],
  },
]

export const trading: readonly DemoActivity[] = [
  {
    ...usual,
    key: 'reports',
    unit: 0,
    category: 'Reviews',
    kind: 'review',
    rubric: 'Source report',
    title: 'Source reports',
    summary: 'Two pages on one source; three classmates read yours without knowing whose it is.',
    brief: doc(
      'Write two pages on one source of the reader: what it was made for, what it shows without meaning to, what it cannot show. Three classmates read yours without knowing whose it is. What would they have to see to believe you?',
    ),
    opens: [4, 1, '08:00'],
    phases: [
      ['write', [4, 1, '08:00'], [5, 1, '23:59']],
      ['review', [5, 2, '00:00'], [6, 2, '23:59']],
      ['mark', [6, 3, '00:00'], [7, 3, '23:59']],
    ],
    rules: [
      { kind: 'entries', need: 1, minWords: 250, due: 'write' },
      { kind: 'reviews', need: 3, minWords: 40, due: 'review' },
    ],
    review: { each: 3, remarkWords: 6, reviewingPercent: 10 },
    pointStep: 10,
  },
  {
    ...usual,
    key: 'city',
    unit: 1,
    category: 'Wiki',
    kind: 'wiki',
    rubric: 'Wiki, group and own',
    groups: 'city',
    title: 'City pages',
    summary: 'Six groups, two to a city: a guide for somebody who arrives by water and stays.',
    brief: doc(
      'Six groups, two to each of our cities, write a guide for somebody who arrives by water and means to stay: where to land, whom to ask, what to pay, what not to say. Where would your two groups disagree about the same quay?',
    ),
    starter: doc(
      'A page might begin where the stranger does: on the wet step below the weigh-house, with nobody looking up. Say what is seen from there before you say what it is called.',
    ),
    opens: [5, 1, '08:00'],
    phases: [
      ['write', [5, 1, '08:00'], [7, 7, '23:59']],
      ['revise', [8, 1, '00:00'], [8, 7, '23:59']],
      ['mark', [9, 1, '00:00'], [9, 7, '23:59']],
    ],
    rules: [
      { kind: 'ownPages', need: 1, minWords: 120, due: 'write' },
      { kind: 'replies', need: 2, minWords: 8, due: 'write' },
      { kind: 'revisions', need: 1, due: 'revise' },
    ],
    wiki: {
      keyWords: ['Where to land', 'Whom to ask', 'What to pay', 'What not to say'],
      othersRead: 'afterWriting',
    },
  },
]

/** An article, read in the margin this week; talked about, not marked. */
export const calm: DemoActivity = {
  ...usual,
  key: 'calm',
  unit: 1,
  category: 'Readings',
  kind: 'reading',
  marked: false,
  scale: 'none',
  title: 'Who may wait?',
  summary:
    'An article on three harbours and their calm water: note where it is sure of more than it knows, and ask one thing.',
  brief: doc(
    'The article is good, and surer than it should be. Note two places where it knows more than its sources can; ask one question that we could take to class; answer one of somebody else’s. What would the three towns say about each other?',
  ),
  opens: [6, 1, '08:00'],
  phases: [['write', [6, 1, '08:00'], [6, 7, '23:59']]],
  rules: [
    { kind: 'entries', need: 2, minWords: 8, due: 'write' },
    { kind: 'questions', need: 1, minWords: 5, due: 'write' },
    { kind: 'replies', need: 1, minWords: 5, due: 'write' },
  ],
}

/** The exit note of week 6, asked at the end of Wednesday's class. */
export const stair: DemoActivity = {
  ...usual,
  key: 'stair',
  unit: 1,
  category: 'Discussions',
  kind: 'exitNote',
  marked: false,
  scale: 'complete',
  title: 'The stair at noon',
  summary:
    'What does the drawing of the stair tell you that its maker did not mean to? Two or three lines, before you go.',
  brief: doc(
    'What does the drawing of the stair tell you that its maker did not mean to? Two or three lines, before you go.',
  ),
  opens: [6, 3, '09:45'],
  phases: [
    ['write', [6, 3, '09:45'], [6, 3, '23:59']],
    ['mark', [6, 4, '00:00'], [6, 5, '18:00']],
  ],
  rules: [{ kind: 'entries', need: 1, minWords: 10, due: 'write' }],
}

export const allTerm: readonly DemoActivity[] = [
  {
    ...usual,
    key: 'notebook',
    unit: null,
    category: 'Notebook',
    kind: 'journal',
    rubric: 'Reflective entry',
    title: 'Harbour notebook',
    summary: 'Every week an entry that only you and we read: what stayed with you, and what you would ask.',
    brief: doc(
      "Every week one entry, read by nobody but us. What stayed with you from this week's texts? What would you ask its writer? It may be unfinished; it must be yours.",
    ),
    starter: doc(
      'This week it was the nine marks under the petition. I kept counting them instead of reading it. Perhaps that is what the board did, too.',
    ),
    opens: [2, 1, '08:00'],
    phases: [['write', [2, 1, '08:00'], [12, 7, '23:59']]],
    rules: [{ kind: 'weeklyEntries', need: 1, minWords: 80, due: 'write' }],
    talk: { opening: 'author' },
    prompts: [
      [[2, 1, '08:00'], 'Which wall do you know that was built against water? Who paid for it?'],
      [[3, 1, '08:00'], 'Copy one line of the toll roll by hand. What did your hand notice?'],
      [[4, 1, '08:00'], 'Whom would you ask, if you could ask one person of 1612 one thing?'],
      [[5, 1, '08:00'], 'What did a classmate write that changed a sentence of yours?'],
      [[6, 1, '08:00'], 'The petition has nine marks and no names. Describe one of the hands.'],
      [[7, 1, '08:00'], 'What can a pilot know that a map cannot?'],
      [[9, 1, '08:00'], 'Write to yourself of week one.'],
    ],
  },
  {
    ...usual,
    key: 'quay',
    unit: null,
    category: 'Letters',
    kind: 'blog',
    marked: false,
    scale: 'none',
    title: 'Letters from the quay',
    summary: "The class's own blog: something seen, heard or eaten near water, with a picture if you like.",
    brief: doc(
      'One blog for all of us. Write when you have something: seen, heard or eaten near water. What does it have to do with our harbours? Sometimes nothing; say so.',
    ),
    starter: doc(
      'A crane lifts a piano out of a barge. Nobody looks up but the dog. I thought of the ballast book, which lists stones by the weight and songs not at all.',
    ),
    opens: [2, 1, '08:00'],
    phases: [['write', [2, 1, '08:00'], [10, 7, '23:59']]],
    rules: [{ kind: 'entries', need: 2, minWords: 60, due: 'write' }],
  },
  {
    ...usual,
    key: 'terms',
    unit: null,
    category: 'Lexicon',
    kind: 'lexicon',
    marked: false,
    scale: 'complete',
    title: 'Terms of the sea',
    summary: 'Two terms each, at any time: ours to define, ours to quarrel over.',
    brief: doc(
      'Last, ballast, mole, lading: the words of our sources, defined by us. Two terms each, at any time of the term. What does each one hide?',
    ),
    opens: [1, 1, '08:00'],
    phases: [['write', [1, 1, '08:00'], [12, 5, '23:59']]],
    rules: [{ kind: 'entries', need: 2, minWords: 20, due: 'write' }],
    lexicon: { categories: TERM_CATEGORIES },
    talk: { approval: true },
  },
]
