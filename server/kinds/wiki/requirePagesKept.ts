import { and, eq, isNull } from 'drizzle-orm'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { groups, wikiPages } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import type { ActivityBody } from '#shared/planning/composer'

/** Pages stand in the wiki of a group, or of the class: whom a wiki is for can change only as far as every page keeps its readers. */
export async function requirePagesKept(
  tx: Db,
  before: ActivityRow,
  audience: ActivityBody['audience'],
): Promise<void> {
  if (JSON.stringify(before.audience) === JSON.stringify(audience)) return
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
