import { detailOf } from '#core/kinds/contributionDetail'
import { draftAt, requireDraftRoom } from '#server/services/contributing'
import type { ActivityActor } from '#server/access/seminar'
import { eq } from 'drizzle-orm'
import type { Database } from '#server/database/client'
import { contributions } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { renderDoc } from '#server/richText/renderDoc'
import type { PageDraftWrite } from '#shared/kinds/wiki/wiki'
import { requireMayWrite, requirePage } from './wikiAccess'

/** Keeps what is being written, for its writer alone. What they saved in another window meanwhile is not overwritten. */
export async function savePageDraft(
  db: Database,
  actor: ActivityActor,
  pageId: string,
  write: PageDraftWrite,
  now: Date,
) {
  const { access, reach } = await requirePage(db, actor, pageId, now)
  requireMayWrite(access, reach, actor)
  const rendered = renderDoc(write.doc)
  return db.transaction(async tx => {
    const draft = await draftAt(tx, actor, { parentId: null, slot: pageId })
    if (draft && draft.version !== write.baseVersion && draft.text !== rendered.text) {
      throw new Problem(
        409,
        'changedMeanwhile',
        'You changed this page in another window. Both texts are here; keep the one you want.',
        {
          theirs: {
            doc: draft.doc,
            base: detailOf(draft, 'pageVersion').page?.base ?? 0,
            savedAt: draft.savedAt.toISOString(),
            version: draft.version,
          },
        },
      )
    }
    const columns = {
      type: 'pageVersion' as const,
      state: 'draft' as const,
      detail: { page: { id: pageId, base: write.base } },
      doc: write.doc,
      html: rendered.html,
      text: rendered.text,
      words: rendered.words,
      savedAt: now,
    }
    if (!draft) await requireDraftRoom(tx, actor)
    const [stored] = draft
      ? await tx
          .update(contributions)
          .set({ ...columns, version: draft.version + 1 })
          .where(eq(contributions.id, draft.id))
          .returning({ version: contributions.version })
      : await tx
          .insert(contributions)
          .values({
            ...columns,
            slot: pageId,
            seminarId: actor.activity.seminarId,
            activityId: actor.activity.id,
            authorId: actor.enrolment.id,
            parentId: null,
            madeAt: now,
          })
          .returning({ version: contributions.version })
    return { version: stored!.version, savedAt: now.toISOString() }
  })
}

/** Lets a draft go: the page is as others see it again. */
export async function discardPageDraft(db: Database, actor: ActivityActor, pageId: string, now: Date) {
  await requirePage(db, actor, pageId, now)
  return db.transaction(async tx => {
    const draft = await draftAt(tx, actor, { parentId: null, slot: pageId })
    if (draft) await tx.delete(contributions).where(eq(contributions.id, draft.id))
    return { done: true }
  })
}
