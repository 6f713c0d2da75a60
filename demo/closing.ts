import { putIn, type ClosingAnswers, type ClosingQuestion, type Urns } from '#core/closing/questions'
import type { Database } from '#server/database/client'
import * as t from '#server/database/schema'

type When = readonly [week: number, weekday: number, time: string]
const id = (n: number) => `0199a000-0000-7000-8000-0000000000${String(n).padStart(2, '0')}`

const breakwater: readonly ClosingQuestion[] = [
  {
    id: id(1),
    kind: 'scale',
    text: 'How far did the discussion change what you thought about who paid?',
    steps: 5,
    low: 'not at all',
    high: 'entirely',
  },
  {
    id: id(2),
    kind: 'choice',
    text: 'What moved your thinking most?',
    options: [
      'the petition',
      'the toll rolls',
      'somebody’s opening post',
      'an answer to mine',
      'nothing did',
    ],
    several: true,
  },
  {
    id: id(3),
    kind: 'scale',
    text: 'Was there room for you to speak?',
    steps: 5,
    low: 'hardly any',
    high: 'as much as I wanted',
  },
  { id: id(4), kind: 'open', text: 'What should we do differently in the next discussion?' },
]
const answers: ReadonlyArray<
  readonly [who: string, first: number, moved: readonly number[], room: number, words: string]
> = [
  [
    'tomasz',
    4,
    [1, 2],
    5,
    'More time between opening posts and replies. Four days were over before I had read everyone.',
  ],
  ['liv', 3, [0], 4, 'Ask us to quote the toll rolls line by line, as we did with the petition.'],
  ['nico', 5, [2, 3], 5, ''],
  ['femke', 4, [1], 3, 'Smaller groups first. In a group of four I would have spoken sooner.'],
  ['mireille', 2, [4], 4, 'The question was narrow. I had an answer after the first reading and kept it.'],
  ['idris', 4, [1, 3], 5, 'Keep the toll rolls. A second source from the ballast carriers would help.'],
  ['solongo', 5, [2], 4, 'Begin with a reading in pairs, then the discussion.'],
  ['kadri', 3, [0, 1], 2, 'The long posts came early and took the room. A limit of words would help.'],
  ['abena', 4, [3], 5, 'More time for replies. The best ones came on the last evening.'],
  ['petra', 3, [0], 2, 'Smaller groups, please.'],
  ['yusra', 4, [1, 2], 4, ''],
  ['rasmus', 5, [3], 5, 'Let the opening question be ours next time.'],
  ['besnik', 3, [1], 3, 'A glossary of the toll terms before we read the rolls.'],
  ['oona', 2, [0], 3, 'Smaller groups, and a reading we have all done before the first post.'],
  ['emrys', 4, [1], 4, 'Say earlier how long a reply should be.'],
  ['malin', 4, [2, 1], 4, 'More sources from people who carried the stone.'],
  ['saoirse', 5, [3, 2], 5, 'Nothing. I would only ask for a day more between the phases.'],
]
const arrive: readonly ClosingQuestion[] = [
  {
    id: id(11),
    kind: 'scale',
    text: 'How sure do you feel about what is expected of you here?',
    steps: 5,
    low: 'lost',
    high: 'quite sure',
  },
  { id: id(12), kind: 'open', text: 'What is still unclear?' },
]

/** Closing questions: of the discussion that is over, answered without names and closed; of the first week, open. */
export async function demoClosing(
  db: Database,
  seminarId: string,
  enrolment: ReadonlyMap<string, string>,
  activity: ReadonlyMap<string, string>,
  at: (when: When) => Date,
): Promise<void> {
  const given = answers.map(([, first, moved, room, words]): ClosingAnswers => ({
    [id(1)]: first,
    [id(2)]: [...moved].sort((a, b) => a - b),
    [id(3)]: room,
    ...(words && { [id(4)]: words }),
  }))
  await db.insert(t.closingSurveys).values([
    {
      activityId: activity.get('breakwater')!,
      seminarId,
      named: false,
      questions: breakwater,
      opensAt: at([5, 7, '23:59']),
      closesAt: at([6, 2, '20:00']),
      toldAt: at([5, 7, '23:59']),
      takers: answers.map(([who]) => enrolment.get(who)!).sort(),
      urns: given.reduce((urns: Urns, a) => putIn(urns, a), {}),
    },
    {
      activityId: activity.get('arrive')!,
      seminarId,
      named: true,
      questions: arrive,
      opensAt: at([6, 1, '08:00']),
      closesAt: at([6, 7, '23:59']),
      toldAt: at([6, 1, '08:00']),
    },
  ])
  await db.insert(t.closingAnswers).values(
    (
      [
        ['tomasz', 4, 'Whether the journal counts as much as the discussions.'],
        ['kadri', 3, 'How long a letter back usually takes.'],
        ['illari', 5, ''],
        ['femke', 4, 'Nothing so far.'],
      ] as const
    ).map(([who, step, words], i) => ({
      activityId: activity.get('arrive')!,
      seminarId,
      enrolmentId: enrolment.get(who)!,
      answers: { [id(11)]: step, ...(words && { [id(12)]: words }) },
      handedInAt: at([6, 1, `1${i}:20`]),
    })),
  )
}
