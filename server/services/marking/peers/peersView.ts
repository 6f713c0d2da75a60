import { titleOf } from '#core/kinds/contributionDetail'
import { and, asc, eq, inArray } from 'drizzle-orm'
import { nameFinder } from '#core/kinds/review/findNames'
import type { Lateness } from '#core/marking/lateness'
import { latenessOfRecord } from '#core/marking/latenessOfRecord'
import { worthOf } from '#core/marking/showMark'
import { calculate } from '#server/services/marking/mark'
import { markedRecords, type MarkedRecord } from '#server/services/marking/markedRecords'
import { readChecked } from '#server/services/standing'
import { isStaff, type ActivityActor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  activities,
  contributions,
  criterionMarks,
  enrolments,
  keptApart,
  marks,
  willing,
} from '#server/database/schema'
import {
  type LoadedPeerReview,
  contentOf,
  dueOf,
  knownPeople,
  loadPeerReview,
  hasReviewingBegun,
  phaseOf,
  reviewRows,
  waitingReviews,
} from '#server/kinds'
import { initialsOf } from '#core/people/names'
import { loadRubric } from '#server/services/rubrics'
import type { PeersView } from '#shared/marking/peers'

/** A peer review as staff moderate it: who reviews whom, all that was handed in, and what is marked so far. */
export async function peersView(db: Db, actor: ActivityActor, now: Date): Promise<PeersView> {
  const { activity } = actor
  const peerReview = await loadPeerReview(db, activity)
  const { settings, plan } = peerReview
  const [rubric, rows, people, offered, apart, known, titles, given, shares] = await Promise.all([
    loadRubric(db, activity.rubricVersionId),
    reviewRows(db, peerReview.allocations),
    peopleOf(db, peerReview),
    db.select().from(willing).where(eq(willing.activityId, activity.id)),
    db.select().from(keptApart).where(eq(keptApart.activityId, activity.id)),
    knownPeople(db, actor),
    titlesOf(db, peerReview),
    marksOf(db, activity.id),
    sharesOf(db, actor, settings, now),
  ])
  const write = phaseOf(plan, 'write')
  const lateness = await latenessOfEach(db, activity, peerReview, now)
  const findNames = nameFinder(known)
  return {
    settings: structuredClone(settings) as PeersView['settings'],
    dealtAt: peerReview.row?.dealtAt?.toISOString() ?? null,
    releasedAt: peerReview.row?.releasedAt?.toISOString() ?? null,
    releasedUpTo: peerReview.row?.releasedUpTo?.toISOString() ?? null,
    waiting: waitingReviews(peerReview, now).length,
    version: peerReview.row?.version ?? 1,
    handInEnded: write === null || now > write.endsAt,
    handInEndsAt: write?.endsAt.toISOString() ?? null,
    reviewStartsAt: phaseOf(plan, 'review')?.startsAt.toISOString() ?? null,
    reviewBegun: hasReviewingBegun(peerReview, now),
    reviewEndsAt: phaseOf(plan, 'review')?.endsAt.toISOString() ?? null,
    rubric,
    worth: worthOf(activity),
    pointStep: activity.pointStep,
    lateRule: activity.lateRule,
    people: people.map(p => ({
      ...p,
      initials: initialsOf(p),
      groupId: peerReview.groups.find(g => g.memberIds.includes(p.id))?.id ?? null,
      more: offered.find(w => w.enrolmentId === p.id)?.more ?? 0,
      lateness: lateness.get(p.id) ?? null,
    })),
    works: peerReview.entries.map(e => {
      const due = dueOf(plan, 'write', e.authorId)
      return {
        id: e.id,
        authorIds: [...e.ownerIds],
        authorId: e.authorId,
        title: titles.get(e.id) ?? '',
        handedInAt: e.shownAt.toISOString(),
        lateMinutes:
          due && !e.isSample ? Math.max(0, Math.ceil((e.shownAt.getTime() - due.getTime()) / 60_000)) : 0,
        words: e.words,
        isSample: e.isSample,
      }
    }),
    notHandedIn:
      settings.subject === 'work'
        ? peerReview.students
            .filter(s => !peerReview.entries.some(e => e.ownerIds.includes(s.enrolmentId)))
            .map(s => s.enrolmentId)
        : [],
    allocations: peerReview.allocations.map(a => {
      const row = rows.get(a.reviewId ?? '')
      const isIn = a.state === 'in' && row !== undefined
      const content = isIn ? contentOf(row) : contentOf(undefined)
      const due = dueOf(plan, 'review', a.reviewerId)
      const named = isIn ? findNames(row.text, a.reviewerId) : []
      return {
        id: a.id,
        reviewerId: a.reviewerId,
        subjectId: a.subjectId,
        entryId: a.entryId,
        source: a.source,
        state: a.state,
        openedAt: a.openedAt?.toISOString() ?? null,
        handedInAt: a.handedInAt?.toISOString() ?? null,
        late: due !== null && (a.handedInAt ?? now) > due,
        kept: a.keptBy !== null,
        setAside: a.setAsideReason,
        notDone: a.notDone,
        setAsideTold: a.setAsideTold,
        helpful: a.helpful,
        answerHtml: a.answerHtml,
        points: { ...content.points },
        remarks: { ...content.remarks },
        answers: { ...content.answers },
        passages: content.passages.map(p => ({ ...p })),
        private: content.private,
        text: isIn ? row.text : '',
        words: isIn ? row.words : 0,
        names: [...new Set(named.map(n => n.exact))],
        namesReviewer: named.some(n => n.isOwn),
      }
    }),
    apart: apart.map(r => [r.oneId, r.otherId]),
    samples: Object.fromEntries(
      peerReview.entries.filter(e => e.isSample).map(e => [e.id, { ...e.detail.sample?.points }]),
    ),
    marks: given,
    groups: peerReview.groups.map(g => ({ id: g.id, title: g.title, memberIds: [...g.memberIds] })),
    shares,
  }
}

/** How late each student's work was by the activity's rule, as marks count it; of nobody where there is no rule. */
async function latenessOfEach(
  db: Db,
  activity: ActivityActor['activity'],
  { plan, students }: LoadedPeerReview,
  now: Date,
): Promise<ReadonlyMap<string, Lateness | null>> {
  if (activity.lateRule.kind === 'none') return new Map()
  const standings = (await readChecked(db, [plan], students, now)).get(activity.id)!
  return new Map(
    [...standings].map(([id, { checks }]) => [id, latenessOfRecord(plan, activity.lateRule, checks, id)]),
  )
}

/** Everyone who gives, receives or is meant, by family name; who has left stays with what they gave. */
async function peopleOf(db: Db, peerReview: LoadedPeerReview) {
  const ids = [
    ...new Set([
      ...peerReview.students.map(s => s.enrolmentId),
      ...peerReview.entries.filter(e => !e.isSample).flatMap(e => e.ownerIds),
      ...peerReview.allocations.flatMap(a => [a.reviewerId, a.subjectId]),
    ]),
  ]
  if (ids.length === 0) return []
  const rows = await db
    .select({
      id: enrolments.id,
      role: enrolments.role,
      state: enrolments.state,
      name: enrolments.name,
      givenName: enrolments.givenName,
      familyName: enrolments.familyName,
    })
    .from(enrolments)
    .where(inArray(enrolments.id, ids))
  const order = new Intl.Collator('en')
  return rows
    .filter(r => !isStaff(r))
    .sort((a, b) => order.compare(a.familyName, b.familyName) || order.compare(a.givenName, b.givenName))
    .map(({ role: _, state, ...p }) => ({ ...p, active: state === 'active' }))
}

/** What a work calls itself: its title, or its first line. */
async function titlesOf(db: Db, peerReview: LoadedPeerReview): Promise<Map<string, string>> {
  const ids = peerReview.entries.map(e => e.id)
  if (ids.length === 0) return new Map()
  const rows = await db
    .select({ id: contributions.id, text: contributions.text, detail: contributions.detail })
    .from(contributions)
    .where(inArray(contributions.id, ids))
  return new Map(
    rows.map(r => {
      const line = r.text.split('\n')[0] ?? ''
      return [r.id, titleOf(r) ?? (line.length > 70 ? `${line.slice(0, 68).replace(/\s+\S*$/, '')} …` : line)]
    }),
  )
}

async function marksOf(db: Db, activityId: string) {
  const [rows, steps] = await Promise.all([
    db.select().from(marks).where(eq(marks.activityId, activityId)).orderBy(asc(marks.enrolmentId)),
    db
      .select({
        markId: criterionMarks.markId,
        criterionId: criterionMarks.criterionId,
        points: criterionMarks.points,
      })
      .from(criterionMarks)
      .innerJoin(marks, eq(marks.id, criterionMarks.markId))
      .where(eq(marks.activityId, activityId)),
  ])
  return rows.map(m => ({
    enrolmentId: m.enrolmentId,
    state: m.state,
    points: m.points,
    takenFrom: m.takenFrom,
    lateWaived: m.lateWaived,
    factor: m.factor,
    own: Object.fromEntries(m.ownSteps.map(s => [s.criterionId, s.points])),
    steps: Object.fromEntries(steps.filter(s => s.markId === m.id).map(s => [s.criterionId, s.points])),
  }))
}

/** The activity whose group mark teammates' scores share, with its marks and what each share would make of them. */
async function sharesOf(
  db: Db,
  actor: ActivityActor,
  { sharesOf: targetId, bounds }: LoadedPeerReview['settings'],
  now: Date,
): Promise<PeersView['shares']> {
  if (!targetId) return null
  const [target] = await db
    .select()
    .from(activities)
    .where(and(eq(activities.id, targetId), eq(activities.seminarId, actor.activity.seminarId)))
  if (!target) return null
  const rows = await marksOf(db, target.id)
  const records = await markedRecords(
    db,
    { ...actor, activity: target },
    rows.map(r => r.enrolmentId),
    now,
    { andFormer: true },
  )
  const [least, most] = [Math.round(bounds.least * 100), Math.round(bounds.most * 100)]
  const factors = Array.from({ length: most - least + 1 }, (_, i) => least + i)
  return {
    activityId: target.id,
    title: target.title,
    worth: worthOf(target),
    marks: rows.map(({ enrolmentId, state, points, factor }) => ({
      ...{ enrolmentId, state, points, factor },
      pointsAt: points === null ? null : factors.map(f => pointsAt(target, records.get(enrolmentId)!, f)),
    })),
  }
}

const pointsAt = (target: ActivityRow, { rubric, given, lateness, mark }: MarkedRecord, factor: number) =>
  calculate(target, rubric, { ...mark, factor }, given, lateness).points ?? 0
