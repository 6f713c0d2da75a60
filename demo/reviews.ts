import type { ReviewContent } from '#core/kinds/review/reviewContent'
import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { reviewOf } from '#core/kinds/review/reviewSettings'
import type { Database } from '#server/database/client'
import * as t from '#server/database/schema'
import { renderDoc } from '#server/richText/renderDoc'
import { docOf } from '#server/kinds/review/saveReview'
import { loadRubric } from '#server/services/rubrics/loadRubrics'
import { levelAt } from '#core/marking/peers/fromReviews'
import { takeConsensus } from '#server/services/marking/peers/takeConsensus'
import { saveMark } from '#server/services/marking/saveMark'
import { actorIn } from './returns'
import { reportsA } from './texts/reports/reportsA'
import { reportsB } from './texts/reports/reportsB'
import { reviews } from './texts/reports/reviews'
import { shares } from './texts/teammates'
import type { DemoText } from './texts/text'

type When = readonly [week: number, weekday: number, time: string]

/** Twenty-one reports; Petra's came nine hours late. */
export const handedIn: readonly DemoText[] = [...reportsA, ...reportsB].map((r, i) => {
  const handedInAt = (): DemoText['at'] => {
    if (r.by === 'petra') return [5, 2, '08:58']
    if (r.by === 'jonas') return [5, 1, '23:57']
    return [
      4,
      4 + (i % 4),
      `${String(9 + (i % 11)).padStart(2, '0')}:${String((7 * i) % 60).padStart(2, '0')}`,
    ]
  }
  return {
    id: `r-${r.by}`,
    by: r.by,
    title: r.title,
    text: r.text,
    at: handedInAt(),
  } satisfies DemoText
})

/** Dealt, not reviewed yet: the three who are late. */
const OWED: ReadonlyArray<readonly [by: string, of: string, opened: boolean]> = [
  ['jonas', 'femke', false],
  ['jonas', 'yusra', false],
  ['petra', 'nico', true],
  ['petra', 'mireille', false],
  ['besnik', 'nico', false],
]
/** Authors whose consensus Ines has taken already. */
const TAKEN = [
  'tomasz',
  'liv',
  'idris',
  'jonas',
  'abena',
  'teodora',
  'laleh',
  'malin',
  'saoirse',
  'illari',
] as const

/** The two peer reviews of the demo: source reports half moderated, and teammates of the walls. */
export class DemoReviews {
  constructor(
    private readonly db: Database,
    private readonly seminarId: string,
    private readonly enrolment: ReadonlyMap<string, string>,
    private readonly activity: ReadonlyMap<string, string>,
    private readonly texts: ReadonlyMap<string, { readonly id: string }>,
    private readonly at: (when: When) => Date,
  ) {}

  async written(): Promise<void> {
    await this.reports()
    await this.teammates()
  }

  private async reports() {
    const { criteria, write } = await this.round('reports', { dealtAt: this.at([5, 2, '09:05']), seed: 1612 })
    for (const [i, r] of reviews.entries()) {
      const at = this.at([
        5,
        3 + (i % 5),
        `${String(10 + (i % 12)).padStart(2, '0')}:${String((11 * i) % 60).padStart(2, '0')}`,
      ])
      await write(
        r.by,
        r.of,
        { entryId: this.texts.get(`r-${r.of}`)!.id, at },
        {
          points: Object.fromEntries(criteria.map((c, k) => [c.id, r.points[k]! * 100])),
          remarks: Object.fromEntries(criteria.map((c, k) => [c.id, r.remarks[k]!])),
          answers: {},
          private: r.private ?? '',
          passages: r.passage
            ? [
                {
                  exact: r.passage[0],
                  prefix: '',
                  suffix: '',
                  start: this.placeOf(r.of, r.passage[0]),
                  note: r.passage[1],
                },
              ]
            : [],
        },
      )
    }
    await this.db.insert(t.allocations).values(
      OWED.map(([by, of, opened]) => ({
        seminarId: this.seminarId,
        activityId: this.activity.get('reports')!,
        reviewerId: this.enrolment.get(by)!,
        subjectId: this.enrolment.get(of)!,
        entryId: this.texts.get(`r-${of}`)!.id,
        source: 'dealt' as const,
        openedAt: opened ? this.at([6, 1, '21:10']) : null,
        madeAt: this.at([5, 2, '09:05']),
      })),
    )
  }

  private placeOf(author: string, exact: string): number {
    const at = [...reportsA, ...reportsB].find(r => r.by === author)!.text.indexOf(exact)
    if (at < 0) throw new Error(`demo: “${exact}” is not in the report of ${author}`)
    return at
  }

  /** Everyone of a group of four on the others and on themselves. */
  private async teammates() {
    const { criteria, question, write } = await this.round('shares', {
      dealtAt: null,
      seed: 1,
      releasedAt: this.at([5, 4, '16:00']),
    })
    const [activity] = await this.db
      .select()
      .from(t.activities)
      .where(eq(t.activities.id, this.activity.get('shares')!))
    await this.db
      .update(t.activities)
      .set({
        settings: {
          ...activity!.settings,
          review: { ...reviewOf(activity!.settings), sharesOf: this.activity.get('walls')! },
        },
      })
      .where(eq(t.activities.id, activity!.id))
    if (activity!.audience.kind !== 'groups') throw new Error('demo: teammates are in groups')
    const members = await this.db
      .select({ id: t.groupMembers.enrolmentId, groupId: t.groupMembers.groupId })
      .from(t.groupMembers)
      .where(eq(t.groupMembers.groupPlanId, activity!.audience.groupPlanId))
    const keyOf = new Map([...this.enrolment].map(([key, id]) => [id, key]))
    for (const member of members) {
      const key = keyOf.get(member.id)!
      const share = shares[key]!
      const mates = members
        .filter(m => m.groupId === member.groupId && m.id !== member.id)
        .map(m => keyOf.get(m.id)!)
        .sort()
      for (const [i, by] of [...mates, key].entries()) {
        const isSelf = by === key
        // the second of them gives a step less on one criterion, so that figures differ as people do
        const points = share.points.map((p, k) =>
          Math.max(1, p - Number(i === 1 && k === key.length % 4) + Number(isSelf && k === 0 && p < 4)),
        )
        await write(
          by,
          key,
          {
            entryId: null,
            at: this.at([
              5,
              1 + (i % 2),
              `${String(17 + i).padStart(2, '0')}:${String(10 + key.length * 4).padStart(2, '0')}`,
            ]),
          },
          {
            points: Object.fromEntries(criteria.map((c, k) => [c.id, points[k]! * 100])),
            remarks: {},
            answers: { [question]: isSelf ? share.self : share.said[i]! },
            passages: [],
            private: i === 0 ? (share.private ?? '') : '',
          },
        )
      }
    }
  }

  /** A round as it stands, and how a review that is in is written into it. */
  private async round(
    key: string,
    row: { readonly dealtAt: Date | null; readonly seed: number; readonly releasedAt?: Date },
  ) {
    const activityId = this.activity.get(key)!
    const [activity] = await this.db.select().from(t.activities).where(eq(t.activities.id, activityId))
    const settings = reviewOf(activity!.settings)
    const rubric = (await loadRubric(this.db, activity!.rubricVersionId))!
    const ids = { seminarId: this.seminarId, activityId }
    await this.db.insert(t.peerReviews).values({
      ...ids,
      ...row,
      releasedUpTo: row.releasedAt,
      releasedBy: row.releasedAt ? this.enrolment.get('ines')! : null,
    })
    const write = async (
      by: string,
      of: string,
      { entryId, at }: { readonly entryId: string | null; readonly at: Date },
      review: ReviewContent,
    ) => {
      const [reviewerId, subjectId] = [this.enrolment.get(by)!, this.enrolment.get(of)!]
      const id = v7()
      const { doc, html, text, words, sources } = renderDoc(docOf(review, rubric, { settings }))
      await this.db.insert(t.contributions).values({
        ...ids,
        id,
        authorId: reviewerId,
        type: 'review',
        parentId: entryId,
        threadId: entryId ?? id,
        openerId: reviewerId,
        state: 'shown',
        doc,
        html,
        text,
        words,
        sources,
        detail: { review },
        madeAt: at,
        savedAt: at,
        shownAt: at,
      })
      await this.db.insert(t.allocations).values({
        ...ids,
        reviewerId,
        subjectId,
        entryId,
        reviewId: id,
        source: by === of ? 'self' : 'dealt',
        state: 'in',
        openedAt: at,
        handedInAt: at,
        madeAt: row.dealtAt ?? at,
      })
    }
    return { criteria: rubric.criteria, question: settings.questions[0]?.id ?? '', write }
  }

  /** What Ines has done with the reports so far: ten taken, one begun by hand. */
  async moderated(): Promise<void> {
    const actor = await actorIn(
      this.db,
      this.seminarId,
      this.enrolment.get('ines')!,
      this.activity.get('reports')!,
    )
    await takeConsensus(
      this.db,
      actor,
      { key: v7(), what: 'consensus', enrolmentIds: TAKEN.map(key => this.enrolment.get(key)!) },
      this.at([6, 3, '09:30']),
    )
    const rubric = (await loadRubric(this.db, actor.activity.rubricVersionId))!
    const steps = [400, 450].map((points, i) => ({
      criterionId: rubric.criteria[i]!.id,
      levelId: levelAt(rubric.criteria[i]!.levels, points).id,
      points,
    }))
    await saveMark(
      this.db,
      actor,
      this.enrolment.get('solongo')!,
      {
        key: v7(),
        baseVersion: 0,
        steps,
        citations: [],
        letter: { type: 'doc', content: [{ type: 'paragraph' }] },
        markerNote: 'Emrys counted sources rather than read them; speak to him before week 10.',
        lateWaived: false,
        excusedFrom: [],
        override: null,
        files: [],
      },
      this.at([6, 3, '09:40']),
    )
    const [given] = await this.db
      .select({ n: t.marks.id })
      .from(t.marks)
      .where(and(eq(t.marks.activityId, actor.activity.id), eq(t.marks.state, 'held')))
      .limit(1)
    if (!given) throw new Error('demo: nobody’s consensus could be taken')
  }
}
