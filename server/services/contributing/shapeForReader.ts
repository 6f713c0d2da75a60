import { KINDS } from '#core/contributing/kinds'
import type { ContributionState, ContributionType } from '#core/contributing/contribution'
import { readerView, type ReaderRole } from '#core/contributing/readerView'
import { isStaff, type ActivityRow, type Enrolment } from '#server/access/seminar'
import type { ContributionDetail } from '#server/database/schema'
import type { ContributionView } from '#shared/contributing/thread'
import { authorView } from '#server/services/people/nameView'

export interface StoredContribution {
  readonly id: string
  readonly parentId: string | null
  readonly type: ContributionType
  readonly state: ContributionState
  readonly authorId: string
  readonly name: string
  readonly givenName: string
  readonly familyName: string
  readonly role: string
  readonly html: string
  readonly text: string
  readonly words: number
  readonly detail: ContributionDetail
  readonly shownAt: Date | null
  readonly editedAt: Date | null
  readonly version: number
  readonly nods: number
  readonly nodded: boolean
}

export interface Reader {
  readonly activity: ActivityRow
  readonly enrolment: Enrolment
  readonly seenUntil: Date | null
  readonly now: Date
}

export const readerRole = (enrolment: Enrolment): ReaderRole =>
  isStaff(enrolment) ? 'staff' : enrolment.role === 'observer' ? 'observer' : 'student'

/** Whether the reader has an entry of their own that is shown: what opens the others' to them. */
export function ownIsIn(rows: readonly Pick<StoredContribution, 'authorId' | 'state' | 'type'>[], reader: Pick<Reader, 'activity' | 'enrolment'>): boolean {
  const { entryType } = KINDS[reader.activity.kind]
  return rows.some(r => r.authorId === reader.enrolment.id && r.state === 'shown' && r.type === entryType)
}

/**
 * The one place that decides what of an activity's contributions leaves the server for a reader.
 * @param rows every stored contribution of the activity but drafts, oldest first
 */
export function shapeForReader(rows: readonly StoredContribution[], reader: Reader): { waiting: boolean, contributions: ContributionView[] } {
  const { activity, enrolment, seenUntil, now } = reader
  const role = readerRole(enrolment)
  const inside = ownIsIn(rows, reader)
  const beforeReveal = isBeforeReveal(activity, now)
  const answered = new Set(rows.filter(r => r.state === 'shown' && r.parentId).map(r => r.parentId))
  const whole = new Set<string>()
  const views: ContributionView[] = []
  for (const row of rows) {
    const isAuthor = row.authorId === enrolment.id
    const view = readerView({
      role, isAuthor, state: row.state, authorIsStaff: row.role === 'instructor' || row.role === 'assistant',
      readBy: KINDS[activity.kind].readBy, writeFirst: activity.settings.writeFirst, ownIsIn: inside, hasShownAnswers: answered.has(row.id), beforeReveal,
    })
    const shownAt = row.shownAt ?? now
    if (view === 'place') views.push({ view, id: row.id, parentId: row.parentId, shownAt: shownAt.toISOString() })
    if (view !== 'whole') continue
    // one's own withdrawn text is left out unless something hangs below it, like everyone's
    if (row.state === 'withdrawn' && isAuthor && !answered.has(row.id) && role !== 'staff') continue
    whole.add(row.id)
    const takesUp = row.detail.takesUp
    views.push({
      view: 'whole', id: row.id, parentId: row.parentId, type: row.type,
      author: authorView({ ...row, enrolmentId: row.authorId }, enrolment.id),
      withdrawn: row.state === 'withdrawn', html: row.html, text: row.text, words: row.words,
      shownAt: shownAt.toISOString(), editedAt: row.editedAt?.toISOString() ?? null,
      isNew: !isAuthor && seenUntil !== null && shownAt > seenUntil,
      nods: row.nods, nodded: row.nodded,
      // a passage is passed on only with the text it was taken from
      takesUp: takesUp && whole.has(takesUp.contributionId) ? { contributionId: takesUp.contributionId, exact: takesUp.exact } : null,
      changeUntil: isAuthor && row.state === 'shown' ? changeUntil(activity, enrolment, shownAt, now) : null,
      version: row.version,
    })
  }
  return { waiting: role !== 'staff' && (beforeReveal || (role === 'student' && activity.settings.writeFirst && !inside)), contributions: views }
}

/** Whether classmates' contributions are still hidden from everyone but staff. */
export const isBeforeReveal = (activity: ActivityRow, now: Date): boolean =>
  activity.settings.hiddenUntil ? now < new Date(activity.settings.hiddenUntil) : false

function changeUntil(activity: ActivityRow, enrolment: Enrolment, shownAt: Date, now: Date): string | null {
  const until = changeableUntil(activity, enrolment, shownAt)
  return until >= now ? until.toISOString() : null
}

/** Until when an author may edit or withdraw; staff always may. */
export function changeableUntil(activity: ActivityRow, enrolment: Enrolment, shownAt: Date): Date {
  return isStaff(enrolment) ? new Date('9999-01-01T00:00:00Z') : new Date(shownAt.getTime() + activity.settings.editMinutes * 60_000)
}
