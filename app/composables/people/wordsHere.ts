import { ownerNow } from '~/autosave/ownedKey'
import { ownedStorage } from '~/autosave/ownedStorage'
import { SEND_KEYS } from '~/autosave/sendKey'
import { forgetOwnTexts, forgetPost, ownTexts, waitingPosts } from '~/composables/contributing/localDrafts'
import { flushAll, letGoOfAll } from '~/composables/shell/useAutosave'
import { useOutbox } from '~/composables/contributing/useOutbox'

const PATIENCE = 4000 // milliseconds that leaving waits for what can still be sent

/** Words of who is signed in that are in this browser and have not reached the server. */
export function useWordsHere() {
  const outbox = useOutbox()
  const ownKeys = () => (ownerNow() === null ? [] : ownedStorage.keys())
  /** Sends what can be sent. @returns how many texts are in this browser alone after that */
  async function count(): Promise<number> {
    const sent = Promise.all([flushAll(), outbox.flush()])
    await Promise.race([sent, new Promise(resolve => setTimeout(resolve, PATIENCE))])
    const [texts, posts] = await Promise.all([ownTexts(), waitingPosts()])
    // a text may stand in both of the browser's storages, and a post that waits beside its draft
    const names = [
      ...ownKeys()
        .filter(key => !key.startsWith(SEND_KEYS))
        .map(key => key.replace(/^jovrel:(?=draft:|page:)/, '')),
      ...texts,
      ...posts.map(post => post.shelf),
    ]
    return new Set(names).size
  }
  /** Takes all of them off this browser. */
  async function forget(): Promise<void> {
    letGoOfAll()
    for (const key of ownKeys()) ownedStorage.drop(key)
    await forgetOwnTexts()
    for (const post of await waitingPosts()) await forgetPost(post.body.key)
  }
  return { count, forget }
}
