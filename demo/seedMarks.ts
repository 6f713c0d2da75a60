import { plainText } from '#core/contributing/richText'
import { calculateMark } from '#core/marking/calculateMark'
import * as t from '#server/database/schema'
import { renderDoc } from '#server/richText/renderDoc'
import { rubric } from './activities'
import type { DemoMark } from './marks'
import { people } from './people'
import { letterDoc } from './richDocs'
import type { Demo } from './demo'

export async function seedMark(demo: Demo, m: DemoMark) {
  const by = m.letter.at(-1)?.[1].includes('Henrik') ? 'henrik' : 'ines'
  const steps = m.steps.map((step, i) => (step === null ? null : demo.criteria[i]!.levels[step]!))
  const total = calculateMark(
    {
      criteria: demo.criteria.map((c, i) => ({
        criterionId: c.id,
        weight: 1,
        max: c.max,
        points: steps[i]?.points ?? null,
      })),
      combine: null,
      late: { lateness: null, rule: { kind: 'none' }, waived: false },
      override: null,
    },
    { max: 2500, step: 50 },
  )
  const letter = letterDoc(m)
  const savedAt = demo.at(m.state === 'returned' ? [6, 2, '16:40'] : [6, 3, '09:10'])
  const cited = m.cites.map(cite => ({
    criterionId: demo.criteria[cite.criterion]!.id,
    contributionId: demo.require(cite.text, m.student).id,
    exact: cite.exact,
    start: demo.require(cite.text, m.student).text.indexOf(cite.exact),
  }))
  for (const cite of cited)
    if (cite.start < 0) throw new Error(`demo: "${cite.exact}" is not in what ${m.student} wrote`)
  const returned: t.ReturnedLetter | null =
    m.state !== 'returned'
      ? null
      : {
          html: renderDoc(letter).html,
          points: total.points!,
          max: 2500,
          by: people.find(p => p.key === by)!.name,
          rubric: rubric.title,
          criteria: demo.criteria.map((c, i) => ({
            id: c.id,
            title: rubric.criteria[i]!.title,
            points: steps[i]!.points,
            max: c.max,
            levelTitle: steps[i]!.title,
            descriptor: steps[i]!.descriptor,
            levels: c.levels.map(l => l.points),
          })),
          citations: cited.map((c, i) => ({ number: i + 1, ...c })),
        }
  const [row] = await demo.db
    .insert(t.marks)
    .values({
      seminarId: demo.seminarId,
      activityId: demo.activity.get('breakwater')!,
      enrolmentId: demo.enrolment.get(m.student)!,
      rubricVersionId: demo.rubricVersionId,
      state: m.state,
      points: total.left === 0 ? total.points : null,
      letter,
      letterText: plainText(letter),
      markerNote: m.note ?? '',
      markedBy: demo.enrolment.get(by)!,
      savedAt,
      heldAt: m.state === 'open' ? null : savedAt,
      returnedAt: m.state === 'returned' ? savedAt : null,
      toldAt: m.state === 'returned' ? savedAt : null,
      returned,
    })
    .returning()
  const ids = { seminarId: demo.seminarId, markId: row!.id }
  await demo.db
    .insert(t.criterionMarks)
    .values(
      steps.flatMap((level, i) =>
        level ? [{ ...ids, criterionId: demo.criteria[i]!.id, levelId: level.id, points: level.points }] : [],
      ),
    )
  if (cited.length > 0)
    await demo.db.insert(t.citations).values(cited.map((c, position) => ({ ...ids, ...c, position })))
}
