import type { TalkDesk } from '~/components/contributing/talkDesk'
import { sentenceKeys } from '~/composables/shell/sentenceKeys'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useThreadStore } from '~/stores/thread'

export type TalkList = 'fresh' | 'unanswered' | 'instructor' | 'held'

/** Going through a discussion by keys: from post to post, to what is new or unanswered, and the acts at each. */
export function useTalkKeys(
  desk: TalkDesk,
  listed: (list: TalkList) => ReadonlyArray<{ readonly id: string }>,
  focusPost: (id: string) => Promise<void>,
) {
  const store = useThreadStore()
  /** The next of a list after the post one is at; from its end, the first again. */
  function jump(to: TalkList, by = 1) {
    const ids = listed(to).map(c => c.id)
    if (ids.length === 0) return
    const at = ids.indexOf(document.activeElement?.id.replace(/^c-/, '') ?? '')
    void focusPost(ids[(at + (at < 0 && by < 0 ? 0 : by) + ids.length) % ids.length]!)
  }
  function step(by: number) {
    const posts = [...document.querySelectorAll<HTMLElement>('article[id^="c-"]')]
    const at = posts.findIndex(p => p === document.activeElement)
    const next = posts[at < 0 ? 0 : at + by]
    next?.focus({ preventScroll: true })
    next?.scrollIntoView({ block: 'center' })
  }
  const turn = (by: number) => (listed('fresh').length > 0 ? jump('fresh', by) : step(by))
  const focused = () => store.whole.find(c => `c-${c.id}` === document.activeElement?.id)
  function replyHere() {
    const post = focused()
    if (post && desk.mayWrite) desk.reply(post.id)
  }
  function nodHere() {
    const post = focused()
    if (post && !post.author.isMe && desk.mayWrite) desk.nod(post.id)
  }
  function foldHere() {
    const post = focused()
    if (post) desk.toggleFold(post.id)
  }
  const keys: Key[] = [
    { keys: 'j', does: 'next new post, or the next post', run: () => turn(1) },
    { keys: 'k', does: 'the one before', run: () => turn(-1) },
    { keys: 'u', does: 'next unanswered post', run: () => jump('unanswered') },
    { keys: 'i', does: 'next word of the instructor', run: () => jump('instructor') },
    { keys: 'r', does: 'reply to the post you are at', run: replyHere },
    { keys: 'n', does: 'nod at it', run: nodHere },
    { keys: 'o', does: 'unfold or fold it', run: foldHere },
    ...sentenceKeys(() => [...document.querySelectorAll<HTMLElement>('article[id^="c-"] .prose > *')]),
  ]
  useKeys(() => keys)
  return { jump }
}
