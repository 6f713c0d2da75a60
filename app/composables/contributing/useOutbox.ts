import { ApiProblem, useApi } from '../shell/useApi'
import { isPassing } from '~/autosave/failureOf'
import { useNotices } from '~/stores/notices'
import { activityOf, forgetPost, forgetPosted, waitingPosts, type WaitingPost } from './localDrafts'
import * as contributingEndpoints from '#shared/contributing/endpoints'

/** Told when a post that waited has been sent, or was refused and is a draft again. */
type Sent = (post: WaitingPost, result: { readonly id: string } | { readonly problem: ApiProblem }) => void
const listeners = new Set<Sent>()
let sending = false

/** What waits to be sent: sent once there is a connection again, each once, in the order it was written. */
export function useOutbox() {
  const api = useApi()
  const notices = useNotices()

  async function flush() {
    if (sending) return
    sending = true
    try {
      for (const post of await waitingPosts()) {
        try {
          const answer = await api.call(contributingEndpoints.postContribution, {
            params: { activityId: activityOf(post) },
            body: post.body,
          })
          await forgetPosted(post)
          await forgetPost(post.body.key)
          if (listeners.size === 0) notices.say('What you wrote while you were away is posted now.')
          for (const onMessage of listeners) onMessage(post, answer)
        } catch (error) {
          if (!(error instanceof ApiProblem) || isPassing(error)) return // still away: the rest waits, too
          if (error.status === 401) return // signed out meanwhile: it waits for its writer
          // refused: the words are still on their shelf, and the place they were for says why
          await forgetPost(post.body.key)
          for (const onMessage of listeners) onMessage(post, { problem: error })
        }
      }
    } finally {
      sending = false
    }
  }
  function onSent(onMessage: Sent) {
    listeners.add(onMessage)
    onBeforeUnmount(() => listeners.delete(onMessage))
  }
  return { flush, onSent }
}
