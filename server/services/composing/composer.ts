import { kindsWhere } from '#core/kinds'
import { and, asc, desc, eq, inArray, isNotNull, ne } from 'drizzle-orm'
import { lexiconOf } from '#core/kinds/lexicon/lexiconSettings'
import { wikiOf } from '#core/kinds/wiki/wikiSettings'
import { readingOf } from '#core/kinds/reading/reading'
import { reviewOf } from '#core/kinds/review/reviewSettings'
import { talkOf } from '#core/contributing/talkSettings'
import { isStaff, type ActivityRow, type ActivityActor, usableBy } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  activities,
  auditTrail,
  categories,
  contributions,
  enrolments,
  expectations,
  files,
  gradingScales,
  groupMembers,
  groupPlans,
  groups,
  jointSeminars,
  marks,
  phases,
  prompts,
  rubrics,
  rubricVersions,
  sections,
  seminars,
  units,
} from '#server/database/schema'
import { countedStudents } from '#server/services/people'
import { loadPlan, loadPlans, otherSeminars, participants } from '#server/services/planning'
import { settableTexts } from '#server/kinds'
import type { TalkBody } from '#shared/contributing/activity'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import { loadRubrics } from '#server/services/rubrics'
import { countStandings, readStandings, standingsIn } from '#server/services/standing'

/** An activity as its instructor sets it, with all that can be chosen for it. */
export async function composerView(db: Db, actor: ActivityActor, now: Date): Promise<ComposerView> {
  const { activity, seminar } = actor
  const [
    plan,
    students,
    body,
    unitRows,
    categoryRows,
    scaleRows,
    versions,
    sectionRows,
    planRows,
    groupRows,
    members,
    [saved],
    earlier,
    others,
  ] = await Promise.all([
    loadPlan(db, activity),
    participants(db, activity),
    loadBody(db, activity),
    db.select().from(units).where(eq(units.seminarId, seminar.id)).orderBy(asc(units.position)),
    db
      .select()
      .from(categories)
      .where(eq(categories.seminarId, seminar.id))
      .orderBy(asc(categories.position)),
    db
      .select()
      .from(gradingScales)
      .where(eq(gradingScales.seminarId, seminar.id))
      .orderBy(asc(gradingScales.position)),
    db
      .select({ id: rubricVersions.id, rubricId: rubrics.id, archivedAt: rubrics.archivedAt })
      .from(rubricVersions)
      .innerJoin(rubrics, eq(rubrics.id, rubricVersions.rubricId))
      .where(eq(rubrics.seminarId, seminar.id))
      .orderBy(asc(rubrics.title), desc(rubricVersions.version)),
    db
      .select()
      .from(sections)
      .where(eq(sections.seminarId, seminar.id))
      .orderBy(asc(sections.position), asc(sections.title)),
    db
      .select()
      .from(groupPlans)
      .where(eq(groupPlans.seminarId, seminar.id))
      .orderBy(asc(groupPlans.position)),
    db.select().from(groups).where(eq(groups.seminarId, seminar.id)).orderBy(asc(groups.position)),
    db.select().from(groupMembers).where(eq(groupMembers.seminarId, seminar.id)),
    db
      .select({ name: enrolments.name })
      .from(auditTrail)
      .innerJoin(enrolments, eq(enrolments.id, auditTrail.actorId))
      .where(eq(auditTrail.subjectId, activity.id))
      .orderBy(desc(auditTrail.at))
      .limit(1),
    earlierActivities(db, actor),
    otherSeminars(db, actor),
  ])
  // the newest version of every rubric in the library, and the one in use, whichever it is
  const offered = versions.filter(
    (v, i) =>
      v.id === activity.rubricVersionId ||
      (v.archivedAt === null && versions.findIndex(o => o.rubricId === v.rubricId) === i),
  )
  const rubricsById = await loadRubrics(
    db,
    offered.map(v => v.id),
  )
  const standings = await readStandings(db, [plan], students, now)
  const inOthers = await countedStudents(
    db,
    others.map(o => o.id),
  )
  const names = new Map(students.map(s => [s.enrolmentId, s.name]))
  return {
    id: activity.id,
    seminarId: seminar.id,
    version: activity.version,
    state: activity.state,
    locked: activity.lockedAt !== null,
    isTemplate: activity.isTemplate,
    savedBy: saved?.name ?? null,
    body,
    questions: plan.questions.length,
    counts: countStandings(standingsIn(plan, standings, students).map(s => s.standing)),
    contributions: await db.$count(
      contributions,
      and(
        eq(contributions.activityId, activity.id),
        inArray(contributions.state, ['shown', 'withdrawn', 'awaitingApproval']),
      ),
    ),
    marks: await db.$count(marks, eq(marks.activityId, activity.id)),
    extensions: [...plan.extensions].map(([enrolmentId, e]) => ({
      enrolmentId,
      name: names.get(enrolmentId) ?? 'somebody who left',
      dueAt: e.dueAt.toISOString(),
      reason: e.reason,
    })),
    units: unitRows.map(({ id, title, fromWeek, toWeek }) => ({ id, title, fromWeek, toWeek })),
    categories: categoryRows.map(({ id, title, weightPercent }) => ({ id, title, weightPercent })),
    scales: scaleRows.map(({ id, title }) => ({ id, title })),
    rubrics: offered.flatMap(v => rubricsById.get(v.id) ?? []),
    sections: sectionRows.map(s => ({
      id: s.id,
      title: s.title,
      people: students.filter(p => p.sectionId === s.id).length,
    })),
    groupPlans: planRows.map(p => ({
      id: p.id,
      title: p.title,
      groups: groupRows
        .filter(g => g.groupPlanId === p.id)
        .map(g => ({
          id: g.id,
          title: g.title,
          memberIds: members
            .filter(m => m.groupId === g.id && names.has(m.enrolmentId))
            .map(m => m.enrolmentId),
        })),
    })),
    people: students
      .filter(s => s.seminarId === seminar.id)
      .map(s => ({ id: s.enrolmentId, name: s.name, sectionId: s.sectionId })),
    seminars: others.map(o => ({ ...o, people: inOthers.filter(s => s.seminarId === o.id).length })),
    earlier,
    shareable: await db
      .select({ id: activities.id, title: activities.title })
      .from(activities)
      .where(
        and(
          eq(activities.seminarId, seminar.id),
          inArray(
            activities.kind,
            kindsWhere(k => k.sharesPoints),
          ),
          isNotNull(activities.points),
          eq(activities.isTemplate, false),
        ),
      )
      .orderBy(asc(activities.position)),
    spoken: await spokenOf(db, activity),
    texts: await settableTexts(db, seminar.id, readingOf(activity.settings).textId),
    pace: { ...seminar.pace },
  }
}

async function spokenOf(db: Db, activity: ActivityRow) {
  if (!activity.spokenFileId) return null
  const [file] = await db.select({ type: files.type }).from(files).where(eq(files.id, activity.spokenFileId))
  return file ? { url: `/api/files/${activity.spokenFileId}`, type: file.type } : null
}

/** All that is set about an activity, in the shape it is written in. */
export async function loadBody(db: Db, a: ActivityRow): Promise<ComposerView['body']> {
  const [phaseRows, rules, promptRows, jointRows] = await Promise.all([
    db.select().from(phases).where(eq(phases.activityId, a.id)).orderBy(asc(phases.position)),
    db
      .select()
      .from(expectations)
      .where(eq(expectations.activityId, a.id))
      .orderBy(asc(expectations.position)),
    db
      .select()
      .from(prompts)
      .where(eq(prompts.activityId, a.id))
      .orderBy(asc(prompts.releaseAt), asc(prompts.position)),
    db
      .select()
      .from(jointSeminars)
      .where(eq(jointSeminars.activityId, a.id))
      .orderBy(asc(jointSeminars.seminarId)),
  ])
  return {
    kind: a.kind,
    title: a.title,
    brief: a.brief,
    starter: a.starter,
    spokenFileId: a.spokenFileId,
    unitId: a.unitId,
    categoryId: a.categoryId,
    scale: a.scale,
    gradingScaleId: a.gradingScaleId,
    points: a.points,
    passPercent: a.passPercent,
    practice: a.practice,
    groupMark: a.groupMark,
    returnTogether: a.returnTogether,
    rubricVersionId: a.rubricVersionId,
    lateRule: a.lateRule,
    combine: a.combine,
    audience: copyAudience(a.audience),
    jointSeminarIds: jointRows.map(j => j.seminarId),
    ...(structuredClone(talkOf(a.settings)) as TalkBody),
    review: structuredClone(reviewOf(a.settings)) as ActivityBody['review'],
    wiki: structuredClone(wikiOf(a.settings)) as ActivityBody['wiki'],
    lexicon: structuredClone(lexiconOf(a.settings)) as ActivityBody['lexicon'],
    reading: { ...readingOf(a.settings) },
    writeFirst: a.settings.writeFirst,
    hiddenUntil: a.settings.hiddenUntil ?? null,
    editMinutes: a.settings.editMinutes,
    rests: [...(a.settings.rests ?? [])],
    opensAt: a.opensAt.toISOString(),
    phases: phaseRows.map(p => ({
      name: p.name,
      startsAt: p.startsAt.toISOString(),
      endsAt: p.endsAt.toISOString(),
    })),
    rules: rules.map(e => ({ id: e.id, rule: e.rule, needed: e.needed })),
    prompts: promptRows.map(p => ({ id: p.id, doc: p.doc, releaseAt: p.releaseAt.toISOString() })),
  }
}

const copyAudience = (audience: ActivityRow['audience']): ComposerView['body']['audience'] =>
  structuredClone(audience) as ComposerView['body']['audience']

/** The instructor's other activities, in this seminar and in those they also instruct: what a plan check may compare with. */
async function earlierActivities(db: Db, actor: ActivityActor): Promise<ComposerView['earlier']> {
  if (!isStaff(actor.enrolment)) return []
  const own = await db
    .select({ seminarId: enrolments.seminarId })
    .from(enrolments)
    .where(
      and(
        eq(enrolments.personId, actor.person.id),
        usableBy(actor.person),
        eq(enrolments.role, 'instructor'),
      ),
    )
  const rows = await db
    .select()
    .from(activities)
    .where(
      and(
        inArray(activities.seminarId, [...own.map(o => o.seminarId), actor.seminar.id]),
        ne(activities.id, actor.activity.id),
        eq(activities.isTemplate, false),
        eq(activities.kind, actor.activity.kind),
      ),
    )
    .orderBy(desc(activities.opensAt))
    .limit(40)
  const others = await db
    .select({ id: seminars.id, code: seminars.code })
    .from(seminars)
    .where(
      inArray(
        seminars.id,
        own.map(o => o.seminarId).filter(id => id !== actor.seminar.id),
      ),
    )
  const codes = new Map(others.map(o => [o.id, o.code]))
  return (await loadPlans(db, rows)).map(p => ({
    seminar: codes.get(p.activity.seminarId) ?? null,
    id: p.activity.id,
    kind: p.activity.kind,
    title: p.activity.title,
    state: p.activity.state,
    opensAt: p.activity.opensAt.toISOString(),
    phases: p.phases.map(x => ({
      name: x.name,
      startsAt: x.startsAt.toISOString(),
      endsAt: x.endsAt.toISOString(),
    })),
    rules: p.expectations.map(e => e.rule),
  }))
}
