import * as messagingEndpoints from '#shared/messaging/endpoints'
import { DRAFTS_AT_ONCE, type MessageDraft } from '#shared/messaging/messages'
import type { useApi } from '~/composables/shell/useApi'

/** Words to begin a message with and whom it would reach, asked for in lots of as many people as one answer takes. */
export async function readDrafts(
  api: ReturnType<typeof useApi>,
  seminarId: string,
  to: readonly string[],
  activity: string | null,
): Promise<MessageDraft> {
  const lots = Array.from({ length: Math.max(1, Math.ceil(to.length / DRAFTS_AT_ONCE)) }, (_, i) =>
    to.slice(i * DRAFTS_AT_ONCE, (i + 1) * DRAFTS_AT_ONCE),
  )
  const drafts = await Promise.all(
    lots.map(ids =>
      api.call(messagingEndpoints.readMessageDraft, {
        params: { seminarId },
        query: { to: ids.join(','), activity },
      }),
    ),
  )
  // words about missing work, if anybody has any
  const words = drafts.find(d => d.people.some(p => p.missing !== '')) ?? drafts[0]!
  return { ...words, people: drafts.flatMap(d => d.people) }
}
