import { detailOf, titleOf } from '#core/kinds/contributionDetail'
import { neutralName } from '#core/contributing/neutralName'
import type { ActivityActor } from '#server/access/seminar'
import { and, eq, inArray } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { contributions, enrolments, willing } from '#server/database/schema'
import { aliasesFor, aliasKey, attachedFiles } from '#server/services/contributing'
import { loadRubric } from '#server/services/rubrics'
import type { OwnReviews, ReviewDesk } from '#shared/kinds/review/review'
import { mayTakeBack } from './saveReview'
import {
  dueOf,
  hasReviewingBegun,
  isReleased,
  loadPeerReview,
  phaseOf,
  practiceBefore,
  type Allocation,
  type LoadedPeerReview,
} from './peerReview'
import { givenHead, givenView, kindOf, reachOfReview, receivedView, type ReviewRow } from './shapeReview'

/** What the reader gives and receives in a peer review, in an order that tells nothing. */
export async function ownReviews(db: Db, actor: ActivityActor, now: Date): Promise<OwnReviews> {
  const { activity, enrolment } = actor
  const peerReview = await loadPeerReview(db, activity)
  const { settings, plan } = peerReview
  const rubric = await loadRubric(db, activity.rubricVersionId)
  const given = peerReview.allocations.filter(a => a.reviewerId === enrolment.id)
  const received = peerReview.allocations.filter(
    a => reachOfReview(peerReview, a, entryOf(peerReview, a), enrolment, now) === 'received',
  )
  const rows = await reviewRows(db, [...given, ...received])
  const own = peerReview.entries.find(e => e.ownerIds.includes(enrolment.id))
  const [called, [offered], teammates] = await Promise.all([
    aliasesFor(
      db,
      activity,
      [...given, ...received]
        .flatMap(a =>
          a.entryId
            ? [
                { threadId: a.entryId, authorId: entryOf(peerReview, a)!.authorId },
                { threadId: a.entryId, authorId: a.reviewerId },
              ]
            : [],
        )
        .concat(own ? [{ threadId: own.id, authorId: own.authorId }] : [])
        .concat(
          settings.subject === 'teammates'
            ? received.map(a => ({ threadId: a.subjectId, authorId: a.reviewerId }))
            : [],
        ),
    ),
    db
      .select({ more: willing.more })
      .from(willing)
      .where(and(eq(willing.activityId, activity.id), eq(willing.enrolmentId, enrolment.id))),
    namesOf(
      db,
      given.map(a => a.subjectId),
    ),
  ])
  const group =
    settings.byGroup || settings.subject === 'teammates'
      ? peerReview.groups.find(g => g.memberIds.includes(enrolment.id))
      : undefined
  const members = group ? await namesOf(db, group.memberIds) : null
  const review = phaseOf(plan, 'review')
  const dealt = peerReview.row?.dealtAt != null || settings.subject === 'teammates'
  const due = dueOf(plan, 'write', enrolment.id)
  return {
    dealt,
    released: isReleased(peerReview, now),
    writeEndsAt: due?.toISOString() ?? null,
    reviewEndsAt: dueOf(plan, 'review', enrolment.id)?.toISOString() ?? null,
    canHandIn:
      settings.subject === 'work' && !own && (settings.late === 'taken' || due === null || now <= due),
    ownCalled: own ? (called.get(aliasKey(own.id, own.authorId))?.name ?? null) : null,
    group:
      group && members
        ? {
            title: group.title,
            members: group.memberIds.map(id => members.get(id)?.name ?? '').filter(Boolean),
            handedInBy: own ? (members.get(own.authorId)?.givenName ?? null) : null,
          }
        : null,
    given: given
      .map(a =>
        givenHead(
          a,
          rows.get(a.reviewId ?? ''),
          calledOf(peerReview, a, called, teammates),
          rubric,
          peerReview,
        ),
      )
      .sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind) || a.id.localeCompare(b.id)),
    more: {
      open:
        settings.subject === 'work' && dealt && review !== null && now <= review.endsAt && own !== undefined,
      wanted: offered?.more ?? 0,
    },
    helpfulMean: helpfulMean(given),
    self: selfOf(given, rows),
    criteria: rubric?.criteria ?? [],
    questions: settings.questions.map(({ id, text }) => ({ id, text })),
    received: received
      .flatMap(a => {
        const row = rows.get(a.reviewId ?? '')
        return row
          ? [
              receivedView(
                a,
                row,
                settings.subject === 'teammates'
                  ? 'A teammate'
                  : (called.get(aliasKey(a.entryId!, a.reviewerId))?.name ?? 'A reader'),
              ),
            ]
          : []
      })
      .sort((a, b) => a.id.localeCompare(b.id)),
    helpfulAsked: settings.helpful,
    handIn: {
      ways: [...settings.ways],
      late: settings.late,
      subject: settings.subject,
      each: settings.each,
      self: settings.self,
      together: settings.together,
      remarkWords: settings.remarkWords,
      onPaper: own?.detail.handIn?.way === 'paper',
    },
  }
}

/** What the reader gave their own work, or themselves among teammates, once it is in. */
function selfOf(given: readonly Allocation[], rows: ReadonlyMap<string, ReviewRow>): OwnReviews['self'] {
  const own = given.find(a => kindOf(a) === 'self' && a.state === 'in')
  if (!own) return null
  const { points, remarks } = givenView(rows.get(own.reviewId ?? ''))
  return { points, remarks }
}

const LEAST_RATINGS = 2 // of fewer a mean would be one author's word

function helpfulMean(given: readonly Allocation[]): OwnReviews['helpfulMean'] {
  const ratings = given.flatMap(a => a.helpful ?? [])
  if (ratings.length < LEAST_RATINGS) return null
  return { mean: ratings.reduce((a, b) => a + b, 0) / ratings.length, of: ratings.length }
}

const ORDER = ['practice', 'work', 'teammate', 'self']

/** One piece of work before its reviewer, with what they have given so far. Whoever opens it keeps it. */
export async function reviewDesk(
  db: Db,
  actor: ActivityActor & { readonly allocation: Allocation },
  now: Date,
): Promise<ReviewDesk> {
  const { activity, enrolment, allocation } = actor
  const peerReview = await loadPeerReview(db, activity)
  const { settings, plan } = peerReview
  const [rubric, rows, entry, blind] = await Promise.all([
    loadRubric(db, activity.rubricVersionId),
    reviewRows(db, [allocation]),
    workOf(db, allocation),
    blindFiles(db, allocation),
  ])
  const row = rows.get(allocation.reviewId ?? '')
  const authorId = entryOf(peerReview, allocation)?.authorId ?? entry?.authorId
  const [called, teammates] = await Promise.all([
    aliasesFor(
      db,
      activity,
      allocation.entryId && authorId
        ? [
            { threadId: allocation.entryId, authorId },
            { threadId: allocation.entryId, authorId: enrolment.id },
          ]
        : [],
    ),
    namesOf(db, [allocation.subjectId]),
  ])
  const kind = kindOf(allocation)
  const sample = entry?.detail.sample
  return {
    id: allocation.id,
    activityId: activity.id,
    seminarId: enrolment.seminarId,
    title: activity.title,
    called: calledOf(peerReview, allocation, called, teammates),
    kind,
    state: allocation.state,
    ownCalled:
      allocation.entryId && kind === 'work'
        ? (called.get(aliasKey(allocation.entryId, enrolment.id))?.name ?? null)
        : null,
    dueAt: dueOf(plan, 'review', enrolment.id)?.toISOString() ?? null,
    open:
      allocation.state !== 'in' &&
      (kind === 'practice' || hasReviewingBegun(peerReview, now)) &&
      practiceBefore(peerReview, allocation) === null,
    practiseFirst: practiceBefore(peerReview, allocation)?.id ?? null,
    together: settings.together,
    remarkWords: settings.remarkWords,
    mayTakeBack: allocation.state === 'in' && mayTakeBack(peerReview, allocation, now) === null,
    work: entry
      ? {
          title: titleOf(entry),
          html: withBlindPictures(entry.html, blind),
          words: entry.words,
          onPaper: entry.detail.handIn?.way === 'paper',
          files: blind.map(({ id: _, ...file }) => file),
        }
      : null,
    criteria: rubric?.criteria ?? [],
    questions: settings.questions.map(q => ({ ...q })),
    given: givenView(row),
    version: row?.version ?? null,
    words: row?.words ?? 0,
    answerHtml: allocation.answerHtml,
    sample: sample && allocation.state === 'in' ? (structuredClone(sample) as ReviewDesk['sample']) : null,
  }
}

export const entryOf = (peerReview: Pick<LoadedPeerReview, 'entries'>, a: Pick<Allocation, 'entryId'>) =>
  peerReview.entries.find(e => e.id === a.entryId) ?? null

function calledOf(
  peerReview: LoadedPeerReview,
  a: Allocation,
  called: ReadonlyMap<string, { readonly name: string }>,
  teammates: ReadonlyMap<string, { readonly name: string }>,
): string {
  if (!a.entryId)
    return a.subjectId === a.reviewerId ? 'Yourself' : (teammates.get(a.subjectId)?.name ?? 'A teammate')
  if (a.source === 'self') return 'Your own work'
  const entry = entryOf(peerReview, a)
  if (entry?.isSample) return `Sample ${peerReview.entries.filter(e => e.isSample).indexOf(entry) + 1}`
  return called.get(aliasKey(a.entryId, entry?.authorId ?? a.subjectId))?.name ?? 'A classmate'
}

/** The rows reviews are written in, by id. */
export async function reviewRows(db: Db, list: readonly Allocation[]): Promise<Map<string, ReviewRow>> {
  const ids = list.flatMap(a => a.reviewId ?? [])
  if (ids.length === 0) return new Map()
  const rows = await db
    .select({
      id: contributions.id,
      type: contributions.type,
      detail: contributions.detail,
      words: contributions.words,
      version: contributions.version,
      state: contributions.state,
      text: contributions.text,
      savedAt: contributions.savedAt,
    })
    .from(contributions)
    .where(inArray(contributions.id, ids))
  return new Map(rows.map(r => [r.id, r]))
}

async function workOf(db: Db, { entryId }: Allocation) {
  if (!entryId) return null
  const [row] = await db
    .select({
      html: contributions.html,
      words: contributions.words,
      type: contributions.type,
      detail: contributions.detail,
      authorId: contributions.authorId,
    })
    .from(contributions)
    .where(eq(contributions.id, entryId))
  return row ? { ...row, detail: detailOf(row, 'entry') } : null
}

async function namesOf(
  db: Db,
  ids: readonly string[],
): Promise<Map<string, { name: string; givenName: string }>> {
  if (ids.length === 0) return new Map()
  const rows = await db
    .select({ id: enrolments.id, name: enrolments.name, givenName: enrolments.givenName })
    .from(enrolments)
    .where(inArray(enrolments.id, [...ids]))
  return new Map(rows.map(r => [r.id, r]))
}

/** The pictures in a work at addresses of the review: by their own nobody but its author may see them. */
const withBlindPictures = (html: string, files: Awaited<ReturnType<typeof blindFiles>>): string =>
  files.reduce((text, { id, url }) => text.replaceAll(`/api/files/${id}`, url), html)

/** The files of a work under neutral names, at addresses of the review; their ids are for the server alone. */
export async function blindFiles(db: Db, allocation: Allocation) {
  if (!allocation.entryId) return []
  const files = (await attachedFiles(db, { ids: [allocation.entryId] })).get(allocation.entryId) ?? []
  return files.map(({ id, name, type, size, hasText }, index) => ({
    id,
    place: index,
    name: neutralName(`Work ${index + 1}`, name),
    type,
    size,
    hasText,
    url: `/api/reviews/${allocation.id}/files/${index}`,
  }))
}
