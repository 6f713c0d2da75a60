import { eq } from 'drizzle-orm'
import { paragraphs } from '#core/contributing/richText'
import type { Database } from '#server/database/client'
import * as t from '#server/database/schema'
import { numberAll } from '#server/services/contributing/numbering'
import { renderDoc } from '#server/richText/renderDoc'

/** A small linear congruential generator: the same seminar at every run. */
function random(seed: number) {
  let state = seed >>> 0
  return () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32
}

const WORDS =
  'silt stone tide toll quay barge council guild harbour ledger mole token rope grain herring oath widow pilot winter channel'.split(
    ' ',
  )

/** Fills one talk of the demo seminar with `posts` made-up contributions, for measuring only. */
export async function fillTalk(db: Database, activityId: string, posts: number, series = 0): Promise<void> {
  const next = random(7)
  const [activity] = await db.select().from(t.activities).where(eq(t.activities.id, activityId))
  const authors = await db.select().from(t.enrolments).where(eq(t.enrolments.role, 'student'))
  const start = activity!.opensAt.getTime()
  const made: string[] = []
  const rows: Array<typeof t.contributions.$inferInsert & { id: string }> = []
  for (let i = 0; i < posts; i++) {
    const text = Array.from(
      { length: 40 + Math.floor(next() * 120) },
      () => WORDS[Math.floor(next() * WORDS.length)],
    ).join(' ')
    const { doc, html, text: plain, words } = renderDoc(paragraphs(text))
    const parentId = made.length > 5 && next() < 0.8 ? made[Math.floor(next() * made.length)]! : null
    const id = `01900000-0000-7000-800${series}-${String(i).padStart(12, '0')}`
    const at = new Date(start + i * 30_000)
    rows.push({
      id,
      seminarId: activity!.seminarId,
      activityId,
      authorId: authors[Math.floor(next() * authors.length)]!.id,
      type: parentId ? 'reply' : 'post',
      parentId,
      state: 'shown',
      doc,
      html,
      text: plain,
      words,
      madeAt: at,
      savedAt: at,
      shownAt: at,
    })
    made.push(id)
  }
  for (let i = 0; i < rows.length; i += 500) await db.insert(t.contributions).values(rows.slice(i, i + 500))
  await numberAll(db)
}
