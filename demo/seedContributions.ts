import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { paragraphs } from '#core/contributing/richText'
import { KINDS } from '#core/kinds'
import * as t from '#server/database/schema'
import { renderDoc } from '#server/richText/renderDoc'
import { activities } from './activities'
import { TERM_CATEGORIES, terms } from './texts/terms'
import type { DemoText } from './texts/text'
import { withFormulas } from './richDocs'
import type { Demo } from './demo'

/** Texts in the order they were written, so that what is answered is always there. */
export async function seedContributions(demo: Demo, activityKey: string, texts: readonly DemoText[]) {
  const kind = KINDS[activities.find(a => a.key === activityKey)!.kind]
  for (const text of [...texts].sort((a, b) => demo.at(a.at).getTime() - demo.at(b.at).getTime())) {
    const at = demo.at(text.at)
    const parent = text.answers ? demo.require(text.answers, text.id) : null
    const rendered = renderDoc(withFormulas(paragraphs(text.text)))
    if (parent && text.takesUp && !parent.text.includes(text.takesUp))
      throw new Error(`demo: ${text.id} takes up words that ${text.answers} does not have`)
    const draftKey = () => {
      if (text.prompt) return demo.prompts.get(activityKey)![text.prompt - 1]!
      if (text.draft && text.title) return text.id
      return ''
    }
    const [row] = await demo.db
      .insert(t.contributions)
      .values({
        seminarId: demo.seminarId,
        activityId: demo.activity.get(activityKey)!,
        authorId: demo.enrolment.get(text.by)!,
        type: parent ? kind.answerType! : kind.entryType,
        parentId: parent?.id ?? null,
        state: text.draft ? 'draft' : 'shown',
        promptId: text.prompt ? demo.prompts.get(activityKey)![text.prompt - 1]! : null,
        slot: draftKey(),
        figures: text.file ? 1 : 0,
        ...rendered,
        sentences: undefined,
        detail: {
          ...(parent &&
            text.takesUp && {
              takesUp: { contributionId: parent.id, exact: text.takesUp, prefix: '', suffix: '' },
            }),
          ...(text.title && { title: text.title }),
        },
        madeAt: at,
        savedAt: at,
        shownAt: text.draft ? null : at,
      } as typeof t.contributions.$inferInsert)
      .returning()
    demo.written.set(text.id, { id: row!.id, text: rendered.text })
    if (text.file) await addPicture(demo, text.file, row!.id, demo.enrolment.get(text.by)!)
    if (text.nods)
      await demo.db.insert(t.nods).values(
        text.nods.map(key => ({
          seminarId: demo.seminarId,
          contributionId: row!.id,
          enrolmentId: demo.enrolment.get(key)!,
          madeAt: at,
        })),
      )
  }
}

/** The class's own terms, with what was said about them; some wait to be shown. */
export async function seedTerms(demo: Demo) {
  const ids = { seminarId: demo.seminarId, activityId: demo.activity.get('terms')! }
  for (const {
    by,
    at: when,
    term,
    forms = [],
    category,
    sources = '',
    part,
    waits,
    file,
    text,
    comments = [],
  } of terms) {
    const at = demo.at(when)
    const rendered = renderDoc(paragraphs(text))
    const detail = {
      title: term,
      term: {
        term,
        forms,
        category: category === null ? null : TERM_CATEGORIES[category]!,
        sources,
        whole: !part,
      },
    }
    const [row] = await demo.db
      .insert(t.contributions)
      .values({
        ...ids,
        authorId: demo.enrolment.get(by)!,
        type: 'term',
        state: waits ? 'awaitingApproval' : 'shown',
        slot: term,
        ...rendered,
        sentences: undefined,
        detail,
        figures: file ? 1 : 0,
        madeAt: at,
        savedAt: at,
        shownAt: at,
      } as typeof t.contributions.$inferInsert)
      .returning()
    if (file) await addPicture(demo, file, row!.id, demo.enrolment.get(by)!)
    for (const [author, said, words] of comments) {
      const spoken = demo.at(said)
      await demo.db.insert(t.contributions).values({
        ...ids,
        authorId: demo.enrolment.get(author)!,
        type: 'comment',
        state: 'shown',
        parentId: row!.id,
        ...renderDoc(paragraphs(words)),
        sentences: undefined,
        madeAt: spoken,
        savedAt: spoken,
        shownAt: spoken,
      } as typeof t.contributions.$inferInsert)
    }
  }
}

/** A drawn picture that comes with a contribution. */
async function addPicture(demo: Demo, name: string, contributionId: string, madeBy: string) {
  const bytes = readFileSync(join(import.meta.dirname, 'files', name))
  const [file] = await demo.db
    .insert(t.files)
    .values({ seminarId: demo.seminarId, madeBy, name, type: 'image/png', size: bytes.length, bytes })
    .returning()
  await demo.db
    .insert(t.contributionFiles)
    .values({ seminarId: demo.seminarId, contributionId, fileId: file!.id, position: 0 })
}

export async function seedVisits(demo: Demo) {
  const seen = (who: string, key: string, at: readonly [number, number, string]) => ({
    seminarId: demo.seminarId,
    activityId: demo.activity.get(key)!,
    enrolmentId: demo.enrolment.get(who)!,
    seenUntil: demo.at(at),
  })
  await demo.db
    .insert(t.visits)
    .values([
      seen('liv', 'dredge', [6, 3, '07:30']),
      seen('ines', 'dredge', [6, 3, '08:20']),
      seen('mireille', 'dredge', [6, 3, '08:05']),
      seen('rasmus', 'dredge', [6, 3, '09:41']),
      seen('liv', 'breakwater', [6, 1, '09:00']),
      seen('ines', 'breakwater', [6, 2, '17:00']),
      seen('liv', 'quay', [6, 2, '09:00']),
      seen('ines', 'quay', [6, 1, '08:00']),
      seen('ines', 'notebook', [6, 2, '18:00']),
    ])
  // up to which place each had read by then
  await demo.db.execute(
    sql`update visits v set seen_seq = coalesce((select max(c.seq) from contributions c
      where c.activity_id = v.activity_id and c.shown_at <= v.seen_until), 0)`,
  )
}
