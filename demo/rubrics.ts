import type { CriterionDraft, RubricDraft } from '#core/marking/rubric/rubricDraft'
import { STARTER_RUBRICS } from '#server/services/rubrics/starterRubrics'

type Step = readonly [points: number, title: string, descriptor: string]
const criterion = (
  title: string,
  steps: readonly Step[],
  more: Partial<CriterionDraft> = {},
): CriterionDraft => ({
  title,
  scope: 'own',
  weight: 1,
  suggestFrom: null,
  outcomes: [],
  levels: steps.map(([points, name, descriptor]) => ({
    title: name,
    points: points * 100,
    pointsFrom: null,
    descriptor,
  })),
  ...more,
})

/** The seminar's library besides *Seminar contribution*, which its marks were given under. */
export const libraryRubrics: readonly RubricDraft[] = [
  ...STARTER_RUBRICS.filter(r => r.title !== 'Seminar contribution'),
  {
    title: 'Wiki, group and own',
    criteria: [
      criterion(
        'The pages as a whole',
        [
          [1, 'Side by side', 'Pages stand next to each other and repeat or contradict one another.'],
          [3, 'Joined', 'Pages lead on from one to the next and name their sources.'],
          [5, 'One guide', 'A reader could live by it: nothing is missing, nothing is said twice.'],
        ],
        { scope: 'group' },
      ),
      criterion('What one wrote', [
        [2, 'A beginning', 'Some lines that others carried on.'],
        [5, 'A page', 'A page that stands on its sources.'],
        [8, 'A page others lean on', 'A page that the other pages refer to and need.'],
      ]),
      criterion('What one mended', [
        [2, 'Little', 'Mended slips.'],
        [4, 'Much', "Made others' pages clearer and said why."],
        [6, 'The whole', 'Saw what the whole lacked and brought it in.'],
      ]),
      criterion('How one answered', [
        [2, 'Seldom', 'Left comments standing.'],
        [4, 'Mostly', 'Acted on comments or said why not.'],
        [6, 'Always', 'Asked for comments, acted on them, and told those who made them.'],
      ]),
    ],
  },
  {
    title: 'Source report',
    criteria: [
      criterion(
        'Question',
        [
          [1, 'None', 'Retells the source.'],
          [3, 'Asked', 'Asks the source something.'],
          [5, 'Its own', 'Asks what the source was not made to answer.'],
        ],
        { outcomes: ['hc-1'] },
      ),
      criterion(
        'Use of sources',
        [
          [1, 'Named', 'Names the source.'],
          [3, 'Quoted', 'Quotes what matters, exactly.'],
          [5, 'Weighed', 'Says how far it can be trusted, and for what.'],
        ],
        { outcomes: ['hc-2'] },
      ),
      criterion('Structure', [
        [1, 'Loose', 'One thing after another.'],
        [3, 'Ordered', 'Each part does something.'],
        [5, 'Needed', 'No part could stand elsewhere.'],
      ]),
      criterion(
        'Expression',
        [
          [1, 'Rough', 'Can be understood.'],
          [3, 'Clear', 'Reads without effort.'],
          [5, 'Exact', 'No word could be exchanged.'],
        ],
        { outcomes: ['hc-4'] },
      ),
    ],
  },
]

export const learningOutcomes = [
  {
    identifier: 'hc-1',
    code: 'HC 1',
    statement: 'Asks questions of a source that it was not made to answer.',
  },
  { identifier: 'hc-2', code: 'HC 2', statement: 'Weighs what a source can show against what it cannot.' },
  {
    identifier: 'hc-3',
    code: 'HC 3',
    statement: 'Takes part in a discussion so that others can build on it.',
  },
  { identifier: 'hc-4', code: 'HC 4', statement: 'Writes for a reader who was not there.' },
] as const

export const demoGroupPlans = [
  {
    key: 'walls',
    title: 'Walls of Sundvik',
    by: 'size',
    count: 4,
    seed: 1612,
    topics: ['Stones', 'Builders', 'Money', 'Ships', 'Enemies', 'Weather'],
    apart: [['rasmus', 'emrys']],
    together: [],
  },
  {
    key: 'city',
    title: 'City pages',
    by: 'number',
    count: 6,
    seed: 1687,
    topics: ['Sundvik', 'Port Amara', 'Qasr el-Mina'],
    apart: [['nico', 'jonas', 'petra']],
    together: [['liv', 'kadri']],
  },
] as const
