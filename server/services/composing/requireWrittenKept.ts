import { eq } from 'drizzle-orm'
import { KINDS } from '#core/kinds'
import type { ActivityKind } from '#core/kinds/kind'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions } from '#server/database/schema'
import { refusedField } from '#server/http/problem'

/**
 * What stands on pages or passages belongs to them, and what does not would not come to: once something is written,
 * neither becomes the other.
 */
export async function requireKindKept(tx: Db, before: ActivityRow, kind: ActivityKind): Promise<void> {
  const refusal = refusalOf(before.kind, kind)
  if (refusal && (await tx.$count(contributions, eq(contributions.activityId, before.id))) > 0)
    throw refusedField('kind', 'written', refusal)
}

/** The sentence that refuses a change from one kind to another once something is written; null where nothing is lost. */
function refusalOf(from: ActivityKind, to: ActivityKind): string | null {
  const [was, becomes] = [KINDS[from].tiedTo, KINDS[to].tiedTo]
  if (from === to || (was === 'nothing' && becomes === 'nothing')) return null
  if (was === 'pages')
    return 'Pages have been written here, so it stays a wiki. Plan another activity beside it.'
  if (becomes === 'passages')
    return 'Something has been written here already, and it would belong to no passage of a text. Plan another activity beside it.'
  if (was === 'passages')
    return 'Something has been written here already, and its passages would be lost. Plan another activity beside it.'
  return 'Something has been written here already, and it would not become pages. Plan a wiki beside it.'
}
