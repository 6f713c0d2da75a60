import { KINDS } from '#core/kinds'
import type { Standing } from '#core/standing/standing'
import { judgeRecord, type AskedFor, type Judged, type WorkDone } from '#core/standing/judgeRecord'
import type { ActivityPlan } from '#server/services/planning'
import type { StudentRecord } from './records'

/** Where one student stands in one activity, without what they wrote. */
export interface KeptStanding {
  readonly standing: Standing
  readonly ownStanding: Standing // as the student knows it: a held mark is not theirs to know
  readonly hasLetter: boolean // something was returned, whatever has become of the mark since
  readonly shown: number // contributions
  readonly drafts: number
}
/** The same with each expectation checked. */
export type CheckedStanding = KeptStanding & Judged

/** What an activity asks for, as its plan says. */
export function askedBy(plan: ActivityPlan): AskedFor {
  const { entryType, answerType } = KINDS[plan.activity.kind]
  return { ...plan, entryType, answerType }
}

/** A record checked against its activity's plan. */
export const judge = (
  plan: ActivityPlan,
  record: Omit<WorkDone, 'joinedAt'> & Pick<StudentRecord, 'student'>,
  now: Date,
): Judged => {
  const { enrolmentId, joinedAt } = record.student
  return judgeRecord(askedBy(plan), { ...record, joinedAt }, enrolmentId, now)
}

/** A record as its student knows it: a held mark is not theirs to know, and what was returned stays returned while it is changed. */
export const asStudentSees = (record: StudentRecord): StudentRecord => ({
  ...record,
  mark: record.hasLetter ? 'returned' : 'none',
})

/** All that is kept of a record. */
export function judgeWork(plan: ActivityPlan, record: StudentRecord, now: Date): CheckedStanding {
  const judged = judge(plan, record, now)
  const known = asStudentSees(record)
  // only a mark that is not theirs to know makes a difference
  const own = known.mark === record.mark ? judged : judge(plan, known, now)
  return {
    ...judged,
    ownStanding: own.standing,
    hasLetter: record.hasLetter,
    shown: record.shown.length,
    drafts: record.drafts,
  }
}
