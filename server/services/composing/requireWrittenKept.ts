import { and, eq, isNull } from 'drizzle-orm'
import { readingOf } from '#core/contributing/reading/reading'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, groups, wikiPages } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import type { ActivityBody } from '#shared/planning/composer'

/** Pages with their versions are no posts, and posts no pages: once something is written, neither becomes the other. */
export async function requireKindKept(tx: Db, before: ActivityRow, kind: ActivityRow['kind']): Promise<void> {
  if (
    before.kind === kind ||
    (before.kind !== 'wiki' && kind !== 'wiki' && before.kind !== 'reading' && kind !== 'reading')
  )
    return
  const refusal = () => {
    if (before.kind === 'wiki')
      return 'Pages have been written here, so it stays a wiki. Plan another activity beside it.'
    if (before.kind === 'reading' || kind === 'reading')
      return `Something has been written here already, and ${kind === 'reading' ? 'it would belong to no passage of a text' : 'its passages would be lost'}. Plan another activity beside it.`
    return 'Something has been written here already, and it would not become pages. Plan a wiki beside it.'
  }
  if ((await tx.$count(contributions, eq(contributions.activityId, before.id))) > 0)
    throw refusedField('kind', 'written', refusal())
}

/** Pages stand in the wiki of a group, or of the class: whom a wiki is for can change only as far as every page keeps its readers. */
export async function requirePagesKept(
  tx: Db,
  before: ActivityRow,
  audience: ActivityBody['audience'],
): Promise<void> {
  if (before.kind !== 'wiki' || JSON.stringify(before.audience) === JSON.stringify(audience)) return
  const written = await tx
    .selectDistinct({ groupId: wikiPages.groupId })
    .from(wikiPages)
    .where(and(eq(wikiPages.activityId, before.id), isNull(wikiPages.trialBy)))
  if (written.length === 0) return
  const findThere = async () => {
    if (audience.kind !== 'groups') return null
    if (audience.groupIds.length > 0) return audience.groupIds
    const all = await tx
      .select({ id: groups.id })
      .from(groups)
      .where(eq(groups.groupPlanId, audience.groupPlanId))
    return all.map(g => g.id)
  }
  const there = await findThere()
  if (
    written.some(w =>
      there === null ? w.groupId !== null : w.groupId === null || !there.includes(w.groupId),
    )
  ) {
    throw refusedField(
      'audience',
      'written',
      there === null
        ? 'Groups have written pages here, and nobody could read them if there were one wiki for the class. Plan another activity beside it.'
        : 'Pages have been written here that none of these groups could read. Plan another activity beside it.',
    )
  }
}

/** Notes stand on passages of a text: once there are any, the reading keeps its text. A new version of it is another thing. */
export async function requireTextKept(tx: Db, before: ActivityRow, body: ActivityBody): Promise<void> {
  const { textId } = readingOf(before.settings)
  if (before.kind !== 'reading' || textId === null || textId === body.reading.textId) return
  if ((await tx.$count(contributions, eq(contributions.activityId, before.id))) > 0)
    throw refusedField(
      'reading',
      'written',
      'Notes have been written in the margin of this text, so it stays. Add a new version of it in the library, or plan another reading.',
    )
}
