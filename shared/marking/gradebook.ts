import { z } from 'zod'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import { MARK_KEYS } from '#core/marking/results/compareMarks'
import { SCALES } from '#core/planning/scale'

const Bands = z.array(z.object({ letter: z.string(), fromPercent: z.number() }))
export const Grading = z.object({
  missingIsZero: z.boolean(),
  countHeld: z.boolean(),
  gradingScaleId: z.uuid().nullable(),
  passPercent: z.number().int().min(0).max(100).nullable(),
  showTotal: z.boolean(),
})
export type Grading = z.infer<typeof Grading>

/** One graded activity. */
export const GradeColumn = z.object({
  id: z.uuid(),
  title: z.string(),
  kind: z.enum(ACTIVITY_KINDS),
  categoryId: z.uuid().nullable(),
  max: z.number().int(),
  step: z.number().int(),
  scale: z.enum(SCALES),
  bands: Bands.nullable(),
  practice: z.boolean(),
  passPercent: z.number().int().nullable(),
  closesAt: z.iso.datetime(),
  byHand: z.boolean(), // neither rubric nor marks of contributions: points set here need no reason
})
export type GradeColumn = z.infer<typeof GradeColumn>

/** How a cell stands: letters, so that a large gradebook stays small on its way. */
export const CELL_STATES = {
  notMeant: '.',
  nothing: '-',
  work: 'w',
  open: 'o',
  held: 'h',
  returned: 'r',
} as const
export const CELL_COUNTS = {
  counted: 'c',
  missing: 'm',
  dropped: 'd',
  droppedMissing: 'D',
  excused: 'x',
  practice: 'p',
  notYet: 'n',
  joinedLater: 'j',
  worthNothing: '0',
  noCategory: 'u',
  notMeant: '.',
} as const

/** One student's marks, in the order of the columns. */
export const GradeRow = z.object({
  enrolmentId: z.uuid(),
  name: z.string(),
  givenName: z.string(),
  familyName: z.string(),
  sectionId: z.uuid().nullable(),
  groupIds: z.array(z.uuid()),
  withdrawn: z.boolean(),
  points: z.array(z.number().int().nullable()), // hundredths; to staff held ones, too
  /** Returned marks that are being changed: what they would be. To staff only. */
  changes: z.array(z.object({ column: z.number().int(), points: z.number().int().nullable() })),
  states: z.string(),
  counts: z.string(),
  closed: z.string(), // '1' where its time is over for this student
  set: z.string(), // '1' where points were set by hand, 'e' where due later than for others
  shares: z.array(z.number().nullable()), // by category
  share: z.number().nullable(), // the final figure, 0..1
})
export type GradeRow = z.infer<typeof GradeRow>

const CategoryView = z.object({
  id: z.uuid(),
  title: z.string(),
  weight: z.number().int(),
  drop: z.number().int(),
})
const Frame = z.object({
  columns: z.array(GradeColumn),
  categories: z.array(CategoryView),
  grading: Grading,
  bands: Bands.nullable(),
})
export const Gradebook = Frame.extend({
  rows: z.array(GradeRow),
  sections: z.array(z.object({ id: z.uuid(), title: z.string() })),
  groups: z.array(z.object({ id: z.uuid(), title: z.string(), plan: z.string() })),
  order: z.array(z.uuid()),
  hidden: z.array(z.uuid()), // columns as the reader has laid them out
  mayEdit: z.boolean(),
})
export type Gradebook = z.infer<typeof Gradebook>
/** A student's own gradebook: what was returned to them, and nothing else. */
export const OwnGrades = Frame.extend({ row: GradeRow })
export type OwnGrades = z.infer<typeof OwnGrades>

export const PointsWrite = z.object({
  key: z.uuid(),
  was: z.number().int().nullable(), // what stood there when it was changed
  points: z.number().int().min(0, 'Points are 0 or more.').nullable(), // null: back to what was calculated
  reason: z.string().trim().max(500, 'Up to 500 characters.'),
})
export type PointsWrite = z.infer<typeof PointsWrite>
export const ExcusedWrite = z.object({
  key: z.uuid(),
  excused: z.boolean(),
  reason: z.string().trim().max(500),
})
export type ExcusedWrite = z.infer<typeof ExcusedWrite>
export const GradebookLayout = z.object({
  order: z.array(z.uuid()).max(500),
  hidden: z.array(z.uuid()).max(500),
})

/** How the marks of one activity are spread, and what may have drifted. */
export const Distribution = z.object({
  title: z.string(),
  kind: z.enum(ACTIVITY_KINDS),
  max: z.number().int(),
  marked: z.number().int(),
  mean: z.number().nullable(),
  median: z.number().nullable(),
  bins: z.array(z.object({ from: z.number().int(), to: z.number().int(), n: z.number().int() })), // hundredths
  criteria: z.array(
    z.object({
      id: z.uuid(),
      title: z.string(),
      max: z.number().int(),
      mean: z.number().nullable(),
      steps: z.array(z.object({ title: z.string(), points: z.number().int(), n: z.number().int() })),
    }),
  ),
  drift: z.array(
    z.object({
      criterion: z.string(),
      markers: z.array(
        z.object({ name: z.string(), marks: z.number().int(), first: z.number(), last: z.number() }),
      ),
      pairs: z.array(
        z.object({
          a: z.object({ id: z.uuid(), name: z.string() }),
          b: z.object({ id: z.uuid(), name: z.string() }),
          steps: z.number().int(),
        }),
      ),
    }),
  ),
})
export type Distribution = z.infer<typeof Distribution>

/** A file of marks before it is taken in: what would change, and every row that cannot be taken, with its reason. */
export const MarksFile = z.object({
  name: z.string().max(255),
  base64: z.string().min(1, 'This file is empty.').max(8_000_000),
  activityId: z.uuid(),
})
export const MarksPreview = z.object({
  title: z.string(),
  changes: z.array(
    z.object({
      line: z.number().int(),
      enrolmentId: z.uuid(),
      name: z.string(),
      by: z.enum(MARK_KEYS), // what the student was known by
      from: z.number().int().nullable(),
      to: z.number().int(),
    }),
  ),
  used: z.object({ mail: z.number().int(), number: z.number().int(), name: z.number().int() }), // lines taken by what
  same: z.number().int(),
  empty: z.number().int(),
  faults: z.array(z.object({ line: z.number().int(), who: z.string(), fault: z.string() })),
})
export type MarksPreview = z.infer<typeof MarksPreview>
export const MarksImport = MarksFile.extend({ key: z.uuid(), reason: z.string().trim().max(500) })
export const MarksImported = z.object({ changed: z.number().int() })
export const ResultsQuery = z.object({
  form: z.enum(['csv', 'xlsx', 'oneroster', 'pdf', 'zip']),
  activity: z.uuid().optional(),
})
