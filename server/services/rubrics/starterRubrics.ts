import type { CriterionDraft, RubricDraft } from '#core/marking/rubric/rubricDraft'
import type { Db } from '#server/database/client'
import { rubrics, rubricVersions } from '#server/database/schema'
import { writeCriteria } from './rubrics'

type Step = readonly [points: number, title: string, descriptor: string]
const criterion = (
  title: string,
  steps: readonly Step[],
  suggestFrom: CriterionDraft['suggestFrom'] = null,
): CriterionDraft => ({
  title,
  scope: 'own',
  weight: 1,
  suggestFrom,
  outcomes: [],
  levels: steps.map(([points, name, descriptor]) => ({
    title: name,
    points: points * 100,
    pointsFrom: null,
    descriptor,
  })),
})

/** Four rubrics to begin with, written for seminars; every new seminar has them in its library. */
export const STARTER_RUBRICS: readonly RubricDraft[] = [
  {
    title: 'Seminar contribution',
    criteria: [
      criterion('Use of evidence', [
        [2, 'Asserts', 'States a view without a source, or names one without using it.'],
        [4, 'Refers', 'Points to a source that fits, in general terms.'],
        [6, 'Grounds', 'Rests the argument on a passage that is quoted or exactly described.'],
        [8, 'Tests', 'Sets sources against each other and says what each can and cannot show.'],
      ]),
      criterion('Builds on others', [
        [2, 'Stands alone', 'Could have been written without the discussion.'],
        [4, 'Responds', 'Agrees or disagrees with a classmate and says with what.'],
        [
          6,
          'Engages',
          "Takes up a classmate's point and extends, tests or qualifies it, naming what changes as a result.",
        ],
        [
          8,
          'Carries on',
          'Moves the discussion to a place it would not have reached, and brings others along.',
        ],
      ]),
      criterion('Clarity of argument', [
        [1, 'Unsorted', 'Has thoughts on the question; what is claimed is hard to tell.'],
        [2, 'Followable', 'Has a claim that a patient reader can find.'],
        [4, 'Clear', 'States its claim and keeps to it, step by step.'],
        [6, 'Compelling', 'Puts its claim so that one must answer it, and foresees the answer.'],
      ]),
      criterion(
        'Timeliness',
        [
          [0, 'After the talk', 'In when the others had finished.'],
          [2, 'Late', 'In late, while the talk was still going on.'],
          [3, 'On time', 'In by the due time, so that others could answer.'],
        ],
        'timeliness',
      ),
    ],
  },
  {
    title: 'Reflective entry',
    criteria: [
      criterion('Notices', [
        [2, 'Retells', 'Says what was read or done, in order.'],
        [4, 'Picks out', 'Stops at one thing and says why at that one.'],
        [6, 'Looks closely', 'Finds in that one thing what a first reading passes over.'],
        [8, 'Sees anew', 'Shows that it can be seen otherwise, and what follows if it is.'],
      ]),
      criterion('Connects', [
        [1, 'Alone', 'Stays within this one text or hour.'],
        [3, 'Beside', 'Sets it beside something else from the seminar or from life.'],
        [5, 'Across', 'Uses the one to ask something of the other.'],
        [7, 'Through', 'Carries a thought through several weeks and says how it has changed.'],
      ]),
      criterion('Asks on', [
        [1, 'Closes', 'Ends with what is settled.'],
        [3, 'Wonders', 'Ends with a question that could be looked into.'],
        [5, 'Sets out', 'Says what one would have to read or do to find out, and begins.'],
      ]),
    ],
  },
  {
    title: 'Notes in the margin',
    criteria: [
      criterion('Reads closely', [
        [1, 'Marks', 'Marks a passage, or says again what stands there.'],
        [3, 'Points', 'Says what in the passage is worth stopping at.'],
        [5, 'Opens', 'Shows by its very words what the passage does or leaves out.'],
        [7, 'Ties together', 'Reads the passage against another of the text, or of the seminar.'],
      ]),
      criterion('Asks and explains', [
        [1, 'Reacts', 'Agrees, doubts or likes, without saying why.'],
        [3, 'Wonders', 'Asks what could be looked up, or explains what most readers know.'],
        [5, 'Asks', 'Asks what the text alone does not settle, or explains what others stumbled over.'],
        [7, 'Leads on', 'Asks or explains so that others read the passage again.'],
      ]),
      criterion('Answers others', [
        [0, 'Alone', 'Leaves the notes of others without an answer.'],
        [2, 'Nods', 'Answers briefly, and adds little to what was said.'],
        [4, 'Answers', 'Answers what was asked, from the text.'],
        [6, 'Carries on', 'Answers so that the talk in the margin goes further.'],
      ]),
    ],
  },
  {
    title: 'Teammate share',
    criteria: [
      criterion('Did their part', [
        [1, 'Seldom', 'Others did much of it.'],
        [2, 'Mostly', 'Did what was agreed, with reminders.'],
        [3, 'Wholly', 'Did what was agreed, when it was agreed.'],
        [4, 'And more', 'Also took up what nobody had thought of.'],
      ]),
      criterion('Listened and answered', [
        [1, 'Seldom', 'Went their own way.'],
        [2, 'Mostly', 'Took up what others said when asked to.'],
        [3, 'Wholly', 'Took up what others said and built on it.'],
        [4, 'And more', 'Made sure that everyone was heard.'],
      ]),
      criterion('Improved the work', [
        [1, 'Seldom', 'Left drafts as they were.'],
        [2, 'Mostly', 'Mended what others pointed out.'],
        [3, 'Wholly', 'Read the whole and made it better.'],
        [4, 'And more', 'Helped others to make theirs better.'],
      ]),
      criterion('Could be relied on', [
        [1, 'Seldom', 'Was hard to reach.'],
        [2, 'Mostly', 'Answered within a few days.'],
        [3, 'Wholly', 'Answered soon and came prepared.'],
        [4, 'And more', 'Held the group together when it was hard.'],
      ]),
    ],
  },
]

export async function addStarterRubrics(tx: Db, seminarId: string): Promise<void> {
  for (const draft of STARTER_RUBRICS) {
    const [rubric] = await tx.insert(rubrics).values({ seminarId, title: draft.title }).returning()
    const [version] = await tx
      .insert(rubricVersions)
      .values({ seminarId, rubricId: rubric!.id, version: 1 })
      .returning()
    await writeCriteria(tx, seminarId, version!.id, draft)
  }
}
