import { and, asc, eq, isNotNull } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import {
  activities,
  closingAnswers,
  closingSurveys,
  contributionFiles,
  contributionRevisions,
  contributions,
  enrolments,
  extensions,
  files,
  groupMembers,
  groups,
  letterReplies,
  marks,
  messages,
  messageThreads,
  nods,
  notices,
  visits,
} from '#server/database/schema'

/** Everything of one person in one seminar, as it is stored: each list in one query. */
export async function gatherOwnData(db: Db, seminarId: string, enrolmentId: string) {
  const [
    written,
    revisions,
    own,
    came,
    letters,
    below,
    said,
    told,
    answers,
    rounds,
    longer,
    grouped,
    nodded,
    seen,
  ] = await Promise.all([
    db
      .select({ c: contributions, activity: activities.title })
      .from(contributions)
      .innerJoin(activities, eq(activities.id, contributions.activityId))
      .where(eq(contributions.authorId, enrolmentId))
      .orderBy(asc(contributions.madeAt), asc(contributions.id)),
    db
      .select({ r: contributionRevisions })
      .from(contributionRevisions)
      .innerJoin(contributions, eq(contributions.id, contributionRevisions.contributionId))
      .where(eq(contributions.authorId, enrolmentId))
      .orderBy(asc(contributionRevisions.contributionId), asc(contributionRevisions.version)),
    db
      .select({ id: files.id, name: files.name, type: files.type, size: files.size, madeAt: files.madeAt })
      .from(files)
      .where(and(eq(files.madeBy, enrolmentId), eq(files.seminarId, seminarId)))
      .orderBy(asc(files.id)),
    db
      .select({ contributionId: contributionFiles.contributionId, fileId: contributionFiles.fileId })
      .from(contributionFiles)
      .innerJoin(contributions, eq(contributions.id, contributionFiles.contributionId))
      .where(eq(contributions.authorId, enrolmentId)),
    db
      .select({ activity: activities.title, returned: marks.returned, at: marks.returnedAt })
      .from(marks)
      .innerJoin(activities, eq(activities.id, marks.activityId))
      .where(and(eq(marks.enrolmentId, enrolmentId), isNotNull(marks.returned)))
      .orderBy(asc(marks.returnedAt)),
    db
      .select({
        activity: activities.title,
        by: enrolments.name,
        at: letterReplies.at,
        html: letterReplies.html,
      })
      .from(letterReplies)
      .innerJoin(activities, eq(activities.id, letterReplies.activityId))
      .innerJoin(enrolments, eq(enrolments.id, letterReplies.authorId))
      .where(eq(letterReplies.enrolmentId, enrolmentId))
      .orderBy(asc(letterReplies.at)),
    db
      .select({ subject: messageThreads.subject, by: enrolments.name, at: messages.at, text: messages.text })
      .from(messages)
      .innerJoin(messageThreads, eq(messageThreads.id, messages.threadId))
      .innerJoin(enrolments, eq(enrolments.id, messages.authorId))
      .where(and(eq(messageThreads.studentId, enrolmentId), isNotNull(messageThreads.toldAt)))
      .orderBy(asc(messages.at)),
    db
      .select({ text: notices.text, detail: notices.detail, at: notices.madeAt })
      .from(notices)
      .where(eq(notices.enrolmentId, enrolmentId))
      .orderBy(asc(notices.madeAt)),
    db
      .select({
        activityId: closingAnswers.activityId,
        round: closingAnswers.round,
        answers: closingAnswers.answers,
        at: closingAnswers.handedInAt,
      })
      .from(closingAnswers)
      .where(eq(closingAnswers.enrolmentId, enrolmentId)),
    db
      .select({
        activityId: closingSurveys.activityId,
        round: closingSurveys.round,
        questions: closingSurveys.questions,
      })
      .from(closingSurveys)
      .where(eq(closingSurveys.seminarId, seminarId)),
    db
      .select({ activity: activities.title, dueAt: extensions.dueAt })
      .from(extensions)
      .innerJoin(activities, eq(activities.id, extensions.activityId))
      .where(eq(extensions.enrolmentId, enrolmentId)),
    db
      .select({ group: groups.title })
      .from(groupMembers)
      .innerJoin(groups, eq(groups.id, groupMembers.groupId))
      .where(eq(groupMembers.enrolmentId, enrolmentId)),
    db
      .select({ contributionId: nods.contributionId, at: nods.madeAt })
      .from(nods)
      .where(eq(nods.enrolmentId, enrolmentId)),
    db
      .select({ activity: activities.title, seenUntil: visits.seenUntil })
      .from(visits)
      .innerJoin(activities, eq(activities.id, visits.activityId))
      .where(eq(visits.enrolmentId, enrolmentId)),
  ])
  return {
    written,
    revisions,
    own,
    came,
    letters,
    below,
    said,
    told,
    answers,
    rounds,
    longer,
    grouped,
    nodded,
    seen,
  }
}
export type OwnRows = Awaited<ReturnType<typeof gatherOwnData>>
