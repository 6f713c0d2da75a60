import { detailOf, titleOf } from '#core/kinds/contributionDetail'
import type { Seminar } from '#server/access/seminar'
import type { enrolments, persons } from '#server/database/schema'
import { namesOf } from '#server/services/people'
import type { OwnRows } from './gatherOwnData'

export interface Owner {
  readonly person: typeof persons.$inferSelect
  readonly enrolment: typeof enrolments.$inferSelect
  readonly section: string | null
}

/** What is in the file of own data, under the names it has there. */
export function shapeOwnData(
  rows: OwnRows,
  who: Owner,
  seminar: Seminar,
  isHidden: (state: string) => boolean,
  now: Date,
) {
  const { own, letters, below, said, told, answers, rounds, longer, grouped, nodded, seen } = rows
  return {
    seminar: { code: seminar.code, title: seminar.title, college: seminar.college },
    madeAt: now,
    person: {
      ...namesOf(who.enrolment),
      email: who.person.email,
      mail: who.person.mailChoice,
      role: who.enrolment.role,
      section: who.section,
      studentNumber: who.enrolment.studentNumber,
      joinedAt: who.enrolment.joinedAt,
      groups: grouped.map(g => g.group),
    },
    contributions: contributionsOf(rows, isHidden),
    letters: letters.map(l => ({ activity: l.activity, returnedAt: l.at, letter: l.returned })),
    repliesBelowLetters: below,
    messages: said,
    notices: told,
    closingAnswers: answers.map(a => ({
      ...a,
      questions: rounds.find(r => r.activityId === a.activityId && r.round === a.round)?.questions ?? [],
    })),
    extensions: longer,
    nods: nodded,
    lookedIn: seen,
    files: own,
  }
}

/** Contributions with their earlier texts; of what is hidden, that it exists. */
function contributionsOf({ written, revisions, came }: OwnRows, isHidden: (state: string) => boolean) {
  return written.map(({ c, activity }) => ({
    // a review’s id and place would tell whose work it is of
    ...(c.type === 'review' ? {} : { id: c.id, answers: c.parentId }),
    activity,
    type: c.type,
    state: c.state,
    madeAt: c.madeAt,
    shownAt: c.shownAt,
    editedAt: c.editedAt,
    withdrawnAt: c.withdrawnAt,
    words: c.words,
    ...(isHidden(c.state)
      ? {}
      : {
          title: titleOf(c),
          text: c.text,
          html: c.html,
          doc: c.doc,
          note: detailOf(c, 'note').note ?? null,
          term: detailOf(c, 'term').term ?? null,
          review: detailOf(c, 'review').review ?? null,
          sentBack: c.sentBack,
        }),
    files: came.filter(f => f.contributionId === c.id).map(f => f.fileId),
    earlier: isHidden(c.state)
      ? []
      : revisions
          .filter(r => r.r.contributionId === c.id)
          .map(({ r }) => ({ version: r.version, text: r.text, html: r.html, replacedAt: r.replacedAt })),
  }))
}
