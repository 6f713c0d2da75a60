import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { paragraphs, type RichNode } from '#core/contributing/richText'
import { USUAL_LEXICON } from '#core/kinds/lexicon/lexiconSettings'
import { USUAL_WIKI } from '#core/kinds/wiki/wikiSettings'
import { USUAL_REVIEW } from '#core/kinds/review/reviewSettings'
import * as t from '#server/database/schema'
import { renderDoc } from '#server/richText/renderDoc'
import { activities, categories, units, type DemoActivity } from './activities'
import type { Demo } from './demo'

export async function seedActivities(demo: Demo) {
  const unitRows = await demo.db
    .insert(t.units)
    .values(
      units.map((u, position) => ({
        seminarId: demo.seminarId,
        title: u.title,
        fromWeek: u.from,
        toWeek: u.to,
        position,
      })),
    )
    .returning()
  const categoryRows = await demo.db
    .insert(t.categories)
    .values(
      categories.map(([title, weightPercent], position) => ({
        seminarId: demo.seminarId,
        title,
        weightPercent,
        position,
      })),
    )
    .returning()
  for (const [position, a] of activities.entries()) {
    await seedActivity(
      demo,
      a,
      position,
      a.unit === null ? null : unitRows[a.unit]!.id,
      categoryRows.find(c => c.title === a.category)!.id,
    )
  }
  // Jonas asked in time
  await demo.db.insert(t.extensions).values({
    seminarId: demo.seminarId,
    activityId: demo.activity.get('breakwater')!,
    enrolmentId: demo.enrolment.get('jonas')!,
    dueAt: demo.at([6, 7, '23:59']),
    reason: 'away for a funeral, agreed on Friday',
  })
}

/** The clip that ships with the demo, with its transcript, shown in a brief. */
async function addClip(demo: Demo): Promise<RichNode> {
  const folder = join(import.meta.dirname, 'files')
  const bytes = readFileSync(join(folder, 'harbour-mouth.webm'))
  const [file] = await demo.db
    .insert(t.files)
    .values({
      seminarId: demo.seminarId,
      madeBy: demo.enrolment.get('ines')!,
      name: 'harbour-mouth.webm',
      type: 'video/webm',
      size: bytes.length,
      transcript: readFileSync(join(folder, 'harbour-mouth.vtt'), 'utf8'),
      bytes,
    })
    .returning()
  return {
    type: 'recording',
    attrs: { src: `/api/files/${file!.id}`, name: 'harbour-mouth.webm', type: 'video/webm' },
  }
}

async function seedActivity(
  demo: Demo,
  a: DemoActivity,
  position: number,
  unitId: string | null,
  categoryId: string,
) {
  const brief = a.clip ? { ...a.brief, content: [...(a.brief.content ?? []), await addClip(demo)] } : a.brief
  const [row] = await demo.db
    .insert(t.activities)
    .values({
      seminarId: demo.seminarId,
      unitId,
      categoryId,
      kind: a.kind,
      title: a.title,
      summary: a.summary,
      brief,
      briefHtml: renderDoc(brief).html,
      state: a.state,
      settings: {
        writeFirst: a.writeFirst,
        editMinutes: 30,
        ...a.talk,
        ...(a.kind === 'review' && { review: { ...USUAL_REVIEW, ...a.review } }),
        ...(a.wiki && { wiki: { ...USUAL_WIKI, ...a.wiki } }),
        ...(a.lexicon && { lexicon: { ...USUAL_LEXICON, ...a.lexicon } }),
      },
      opensAt: demo.at(a.opens),
      lateRule: { kind: 'none' },
      ...markedBy(demo, a),
      starter: a.starter ?? null,
      starterHtml: a.starter ? renderDoc(a.starter).html : null,
      publishedAt: a.state === 'published' ? demo.at(a.opens) : null,
      audience: a.groups
        ? { kind: 'groups', groupPlanId: demo.groupPlan.get(a.groups)!, groupIds: [] }
        : { kind: 'everyone' },
      position,
    })
    .returning()
  demo.activity.set(a.key, row!.id)
  const ids = { seminarId: demo.seminarId, activityId: row!.id }
  await demo.db.insert(t.phases).values(
    a.phases.map(([name, from, to], i) => ({
      ...ids,
      name,
      startsAt: demo.at(from),
      endsAt: demo.at(to),
      position: i,
    })),
  )
  if (a.rules.length > 0)
    await demo.db.insert(t.expectations).values(a.rules.map((rule, i) => ({ ...ids, rule, position: i })))
  if (a.prompts)
    demo.prompts.set(
      a.key,
      (
        await demo.db
          .insert(t.prompts)
          .values(
            a.prompts.map(([at, words], i) => ({
              ...ids,
              position: i,
              doc: paragraphs(words),
              html: renderDoc(paragraphs(words)).html,
              releaseAt: demo.at(at),
            })),
          )
          .returning()
      ).map(p => p.id),
    )
}

/** Points, scale and rubric of an activity. */
function markedBy(demo: Demo, a: DemoActivity) {
  if (!a.marked && a.rubric)
    return {
      points: null,
      scale: 'none' as const,
      rubricVersionId: demo.otherRubrics.get(a.rubric)!.versionId,
    }
  if (!a.marked)
    return {
      points: a.scale === 'complete' ? 100 : null,
      scale: a.scale ?? ('none' as const),
      rubricVersionId: null,
    }
  const other = a.rubric ? demo.otherRubrics.get(a.rubric)! : null
  return {
    points: other?.points ?? 2500,
    scale: 'points' as const,
    rubricVersionId: other?.versionId ?? demo.rubricVersionId,
    ...(a.pointStep && { pointStep: a.pointStep }),
  }
}
