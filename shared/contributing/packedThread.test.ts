import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { PackedThread, packThread, unpackThread } from './packedThread'
import { WholeView, type ContributionView, type ThreadView } from './thread'

const uuid = fc.uuid({ version: 7 })
const instant = fc.integer({ min: 0, max: 2_000_000_000_000 }).map(at => new Date(at).toISOString())
const orNull = <T>(values: fc.Arbitrary<T>) => fc.option(values, { nil: null })

const author = fc
  .record({
    id: fc.constantFrom(
      '0190b2a0-0000-7000-8000-000000000001',
      '0190b2a0-0000-7000-8000-000000000002',
      '0190b2a0-0000-7000-8000-000000000003',
    ),
    name: fc.constantFrom('Tern', 'Heron'), // behind an alias one has another name in each thread
  })
  .map(({ id, name }) => ({
    ...{ id, name, givenName: name, initials: name.slice(0, 2) },
    ...{ isStaff: false, role: null, isMe: id.endsWith('1') },
  }))
const file = fc.record({
  id: uuid,
  url: fc.string(),
  name: fc.string(),
  type: fc.string(),
  size: fc.nat(),
  hasText: fc.boolean(),
})

/** Contributions of chance: each field has its usual value about as often as another. */
const whole = fc.record({
  view: fc.constant('whole' as const),
  id: uuid,
  parentId: orNull(uuid),
  type: fc.constantFrom('post' as const, 'note' as const),
  author,
  threadId: uuid,
  state: fc.constantFrom('shown' as const, 'withdrawn' as const),
  withdrawn: fc.boolean(),
  mayPutBack: fc.boolean(),
  html: orNull(fc.string()),
  words: fc.nat(),
  seq: orNull(fc.nat()),
  shownAt: instant,
  showAt: orNull(instant),
  editedAt: orNull(instant),
  isNew: fc.boolean(),
  nods: fc.nat({ max: 2 }),
  nodded: fc.boolean(),
  takesUp: orNull(fc.record({ contributionId: uuid, exact: fc.string({ minLength: 1, maxLength: 20 }) })),
  changeUntil: orNull(instant),
  withdrawUntil: orNull(instant),
  onTop: fc.boolean(),
  openToClass: fc.boolean(),
  promptId: orNull(uuid),
  title: orNull(fc.string()),
  term: fc.constant(null),
  note: fc.constant(null),
  files: fc.array(file, { maxLength: 2 }),
  circle: orNull(uuid),
  alias: orNull(fc.string()),
  done: orNull(fc.boolean()),
  points: orNull(fc.nat()),
  sentBack: orNull(fc.string()),
  version: fc.integer({ min: 1, max: 3 }),
})
const place = fc.record({
  view: fc.constant('place' as const),
  id: uuid,
  parentId: orNull(uuid),
  shownAt: instant,
})

const threadOf = (contributions: ContributionView[]): ThreadView => ({
  waiting: false,
  waitingAt: [],
  closedToWords: false,
  closedThreads: [],
  lastSeq: 0,
  contributions,
  more: false,
  circles: [],
  drafts: [],
  checks: [],
  notHeard: [],
})

describe('a talk on its way to its reader', () => {
  it('arrives as it was sent, whatever is in it', () => {
    const own = fc.oneof(
      whole,
      whole.map(w => ({ ...w, threadId: w.id })),
      place,
    )
    fc.assert(
      fc.property(fc.array(own, { maxLength: 12 }), contributions => {
        const thread = threadOf(contributions)
        const sent = JSON.stringify(PackedThread.parse(packThread(thread)))
        expect(unpackThread(JSON.parse(sent) as PackedThread)).toEqual(thread)
      }),
      { numRuns: 300 },
    )
  })

  it('names each author once, and says of an ordinary post only what is its own', () => {
    const [first, second] = fc.sample(whole, { numRuns: 2, seed: 3 }).map(w => ({
      ...WholeView.parse({ ...w, author: { ...w.author, id: fc.sample(uuid, 1)[0] } }),
      ...{ threadId: w.id, parentId: null, state: 'shown' as const, withdrawn: false, mayPutBack: false },
      ...{ html: null, showAt: null, editedAt: null, isNew: false, nods: 0, nodded: false, takesUp: null },
      ...{ changeUntil: null, withdrawUntil: null, onTop: false, openToClass: false, promptId: null },
      ...{ title: null, files: [], circle: null, alias: null, done: null, points: null, sentBack: null },
      version: 1,
    }))
    const packed = packThread(threadOf([first!, { ...second!, author: first!.author }]))
    expect(packed.authors).toEqual([first!.author])
    expect(JSON.parse(JSON.stringify(packed.contributions[1]))).toEqual({
      view: 'whole',
      id: second!.id,
      type: second!.type,
      by: 0,
      words: second!.words,
      seq: second!.seq,
      shownAt: second!.shownAt,
    })
  })
})
