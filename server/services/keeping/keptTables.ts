import { sql, type SQL } from 'drizzle-orm'
import { type PgTable } from 'drizzle-orm/pg-core'
import * as t from '#server/database/schema'
import { FEWEST_UNNAMED } from '#core/closing/questions'
import { now } from '#server/clock'
import { joinedWith } from './joinedWith'

/** A table of an archive: which of its rows belong to a seminar, and what does not leave with them. */
export interface KeptTable {
  readonly table: PgTable
  readonly about: string
  readonly rows?: (seminarId: string) => SQL // a condition; those of the seminar unless said
  readonly without?: readonly string[] // columns that stay behind
  readonly instead?: Readonly<Record<string, (seminarId: string) => SQL>> // columns that leave as something else
}

const EMPTY_DOC = sql`'{"type":"doc","content":[]}'::jsonb`
/** Where a draft belongs, without anything its author has typed. */
const DRAFT_DETAIL = sql`(case when r.detail ? 'page' then jsonb_build_object('page', r.detail -> 'page') else '{}'::jsonb end)
  || (case when r.detail ? 'handIn' then jsonb_build_object('handIn', r.detail -> 'handIn') else '{}'::jsonb end)
  || (case when r.detail ? 'note' then jsonb_build_object('note', (r.detail -> 'note') || '{"tags":[]}'::jsonb) else '{}'::jsonb end)`
/** Whether answers without names can be read: they have closed, and are no fewer than what hides whose they are. */
const maybeRead = () =>
  sql`(r.closes_at <= ${now().toISOString()}::timestamptz and cardinality(r.takers) >= ${FEWEST_UNNAMED}::int)`
const draft = (own: string, otherwise: SQL) => () =>
  sql`case when r.state in ('draft', 'scheduled') then ${otherwise} else to_jsonb(r.${sql.identifier(own)}) end`

/** A name of somebody as the seminar has it: what their account is called is theirs. */
const namedHere = (column: string) => (id: string) =>
  sql`(select to_jsonb(e.${sql.identifier(column)}) from enrolments e where e.person_id = r.id
    and (e.seminar_id = ${id} or e.seminar_id in (${joinedWith(id)})) order by e.seminar_id <> ${id}, e.id limit 1)`

/**
 * Everything that makes up a seminar, each table after those it points to. What is here leaves with an archive, and is
 * restored from one; a test holds that every table of the schema is either here or left behind with a reason.
 */
export const KEPT_TABLES: readonly KeptTable[] = [
  {
    table: t.persons,
    about: 'people, without passwords and private addresses',
    rows: id =>
      sql`r.id in (select person_id from enrolments where seminar_id = ${id} or seminar_id in (${joinedWith(id)}))`,
    without: ['password_hash', 'founds_seminars', 'calendar_secret', 'confirmed_at'],
    instead: {
      name: namedHere('name'),
      given_name: namedHere('given_name'),
      family_name: namedHere('family_name'),
    },
  },
  {
    table: t.seminars,
    about: 'the seminar; and, by name alone, those it shares activities with',
    without: ['silent_since'],
    rows: id => sql`r.id = ${id} or r.id in (${joinedWith(id)})`,
    instead: { state: id => sql`case when r.id = ${id} then to_jsonb(r.state) else '"archived"'::jsonb end` },
  },
  { table: t.sections, about: 'sections' },
  {
    table: t.enrolments,
    about: 'who is in the seminar, and as what',
    without: ['given_to_address'],
    rows: id => sql`r.seminar_id = ${id} or r.seminar_id in (${joinedWith(id)})`,
    instead: { section_id: id => sql`case when r.seminar_id = ${id} then to_jsonb(r.section_id) end` },
  },
  { table: t.groupPlans, about: 'ways of grouping' },
  { table: t.groups, about: 'groups' },
  { table: t.groupMembers, about: 'who is in which group' },
  { table: t.units, about: 'units of the term' },
  { table: t.categories, about: 'categories and weights of the gradebook' },
  { table: t.gradingScales, about: 'scales of letters' },
  { table: t.outcomes, about: 'outcomes, with their CASE identifiers' },
  { table: t.rubrics, about: 'rubrics' },
  { table: t.rubricVersions, about: 'their versions' },
  { table: t.rubricCriteria, about: 'criteria' },
  { table: t.criterionOutcomes, about: 'of which outcomes a criterion is evidence' },
  { table: t.rubricLevels, about: 'levels, points in hundredths' },
  { table: t.files, about: 'files; their bytes lie in the folder files, under their id', without: ['bytes'] },
  {
    table: t.activities,
    about: 'activities with their settings',
    without: ['group_plan_id', 'text_id'], // made of the settings
  },
  {
    table: t.jointSeminars,
    about: 'which other seminars take part in an activity',
    rows: id => sql`r.activity_id in (select id from activities where seminar_id = ${id})`,
  },
  { table: t.phases, about: 'phases and due times' },
  { table: t.expectations, about: 'what is asked for' },
  { table: t.extensions, about: 'extensions' },
  { table: t.prompts, about: 'prompts' },
  { table: t.texts, about: 'texts to read' },
  { table: t.textVersions, about: 'their versions' },
  {
    table: t.contributions,
    about: 'everything anyone has contributed; of drafts that they exist and their length, never their words',
    instead: {
      doc: draft('doc', EMPTY_DOC),
      html: draft('html', sql`'""'::jsonb`),
      text: draft('text', sql`'""'::jsonb`),
      detail: draft('detail', DRAFT_DETAIL),
    },
  },
  { table: t.contributionRevisions, about: 'earlier texts' },
  { table: t.nods, about: 'nods' },
  { table: t.visits, about: 'how far each has read' },
  { table: t.contributionFiles, about: 'files that came with contributions' },
  { table: t.aliases, about: 'names people go by where names are hidden' },
  { table: t.contributionMarks, about: 'marks of single contributions' },
  { table: t.peerReviews, about: 'how far peer reviews have come' },
  { table: t.allocations, about: 'who reviews what' },
  { table: t.keptApart, about: 'who does not review whom' },
  { table: t.willing, about: 'who would review more' },
  { table: t.wikiPages, about: 'pages of wikis' },
  { table: t.pageVersions, about: 'their versions, with who wrote which words' },
  { table: t.pageComments, about: 'comments on them' },
  { table: t.marks, about: 'marks and letters, points in hundredths' },
  { table: t.letterReplies, about: 'what was written below letters' },
  { table: t.criterionMarks, about: 'steps by criterion' },
  { table: t.markFiles, about: 'files with letters' },
  { table: t.secondMarks, about: 'second marking' },
  { table: t.markerShares, about: 'shares of the queue' },
  { table: t.phrases, about: 'phrases markers keep' },
  { table: t.excuses, about: 'who need not do what' },
  { table: t.gradebookViews, about: 'how staff have laid out the gradebook' },
  { table: t.citations, about: 'passages cited as evidence' },
  { table: t.auditTrail, about: 'every change of marks and of the seminar: who, when, what, why' },
  { table: t.notices, about: 'what people were told' },
  { table: t.messageRules, about: 'standing rules' },
  { table: t.messageThreads, about: 'conversations' },
  { table: t.messages, about: 'what was written in them' },
  {
    table: t.closingSurveys,
    about:
      'closing questions; answers without names stand here, by question, in the order of the alphabet, once they have closed and enough have answered, and nothing says who did',
    instead: {
      takers: () =>
        sql`case when r.named or not ${maybeRead()} then '[]'::jsonb
          else to_jsonb(array_fill('00000000-0000-0000-0000-000000000000'::uuid, array[cardinality(r.takers)])) end`,
      urns: () => sql`case when ${maybeRead()} then r.urns else '{}'::jsonb end`,
    },
  },
  { table: t.closingAnswers, about: 'closing answers with their names' },
]

/** What stays behind, and why. */
export const LEFT_BEHIND: ReadonlyArray<readonly [table: PgTable, why: string]> = [
  [t.passwordLinks, 'opens an account'],
  [t.sessions, 'is a signed-in browser'],
  [t.addressLinks, 'confirms an address'],
  [t.secondFactors, 'opens an account'],
  [t.recoveryCodes, 'opens an account'],
  [t.signInSteps, 'is of use for ten minutes'],
  [t.passkeys, 'opens an account'],
  [t.passkeyChallenges, 'is of use for minutes'],
  [t.rateLimits, 'belongs to the installation'],
  [t.accessLog, 'belongs to the installation'],
  [t.setupCodes, 'belongs to the installation'],
  [t.joiningCodes, 'lets people in'],
  [t.feeds, 'are secret addresses'],
  [t.annotationTokens, 'are secret addresses'],
  [t.idempotencyRecords, 'is of use for an hour'],
  [t.pageWriters, 'is of use for a minute'],
  [t.recordMarkers, 'is of use for a minute'],
  [t.mails, 'has gone out'],
  [t.mailroomMessages, 'belongs to the installation'],
  [t.textMeasures, 'is counted anew'],
  [t.dueFailures, 'is tried again'],
  [t.standings, 'is judged anew'],
  [t.standingChanges, 'is judged anew'],
]
