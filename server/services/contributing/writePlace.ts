import { and, eq } from 'drizzle-orm'
import { KINDS } from '#core/contributing/kinds'
import type { ContributionType } from '#core/contributing/contribution'
import { isStaff, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, enrolments, persons, type ContributionDetail } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import type { TakesUp } from '#shared/contributing/thread'
import { isBeforeReveal, ownIsIn } from './shapeForReader'

export interface WritePlace { readonly type: ContributionType, readonly detail: ContributionDetail }

/**
 * Where something is about to be written: refuses a place that is not there, not open to the writer or withdrawn,
 * with the sentence for the writing field. `lock` keeps the answered text from being withdrawn until the write is done.
 */
export async function requirePlace(db: Db, actor: Actor & { readonly activity: ActivityRow }, parentId: string | null, takesUp: TakesUp | null, now: Date, lock = false): Promise<WritePlace> {
  const { activity, enrolment } = actor
  const { entryType, answerType } = KINDS[activity.kind]
  if (activity.state !== 'published' || now < activity.opensAt) {
    throw refusedField('doc', 'notOpen', `This has not opened yet. It opens ${localTime(activity.opensAt, actor.seminar.timeZone)}; your text is kept here until then.`)
  }
  if (parentId === null) return { type: entryType, detail: {} }
  if (!answerType) throw refusedField('doc', 'noAnswers', 'Nothing can be answered here.')
  const query = db.select({ parent: contributions, authorName: persons.givenName }).from(contributions)
    .innerJoin(enrolments, eq(enrolments.id, contributions.authorId)).innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(and(eq(contributions.id, parentId), eq(contributions.activityId, activity.id)))
  const [found] = lock ? await query.for('share', { of: contributions }) : await query
  const visible = found && (found.parent.authorId === enrolment.id || await mayRead())
  if (!found || !visible || found.parent.state === 'draft') {
    throw refusedField('doc', 'nothingToAnswer', 'The post you answer is not there, or not open to you yet. Your text is kept here.')
  }
  if (found.parent.state === 'withdrawn') {
    throw refusedField('doc', 'withdrawn', `${found.authorName} has withdrawn this post, so it can no longer be answered. Your text is kept here; you could post it elsewhere.`)
  }
  if (takesUp && !found.parent.text.includes(takesUp.exact)) {
    throw refusedField('takesUp', 'passageGone', 'The passage you took up is no longer in the post. Choose it again, or post without it.')
  }
  return { type: answerType, detail: takesUp ? { takesUp: withContext(found.parent.text, { ...takesUp, contributionId: parentId }) } : {} }

  async function mayRead() {
    if (!isStaff(enrolment) && isBeforeReveal(activity, now)) return false
    if (enrolment.role !== 'student' || !activity.settings.writeFirst) return true
    const own = await db.select({ authorId: contributions.authorId, state: contributions.state, type: contributions.type })
      .from(contributions).where(and(eq(contributions.activityId, activity.id), eq(contributions.authorId, enrolment.id)))
    return ownIsIn(own, actor)
  }
}

const CONTEXT = 32 // characters kept before and after, as the W3C text quote selector has them

function withContext(text: string, { contributionId, exact }: TakesUp) {
  const at = text.indexOf(exact)
  return { contributionId, exact, prefix: text.slice(Math.max(0, at - CONTEXT), at), suffix: text.slice(at + exact.length, at + exact.length + CONTEXT) }
}

export const localTime = (at: Date, timeZone: string): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone, weekday: 'long', day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' }).format(at).replace(' at ', ', ')
