import { countReplies, type ThreadNode } from '#core/contributing/buildThread'
import type { ContributionView, TakesUp } from '#shared/contributing/thread'
import type { ThreadDesk } from '../../components/contributing/discussion/threadDesk'
import { useNotices } from '../../stores/notices'
import { useSeminarStore } from '../../stores/seminar'
import { useThreadStore } from '../../stores/thread'

const LETTERS = 'abcdefghijklmnopqrstuvwxyz'

/** Everything one does in a talk: fold, jump, nod, take up a passage, reply, withdraw. */
export function useThreadDesk() {
  const store = useThreadStore()
  const seminar = useSeminarStore()
  const notices = useNotices()
  const unfolded = reactive(new Set<string>())
  const foldedThreads = reactive(new Set<string>())
  const replyTo = ref<string | null>(null)
  const takesUp = shallowRef<TakesUp | null>(null)
  const chosen = shallowRef<TakesUp | null>(null)
  const caretIn = ref(true) // whether the caret goes into the reply box: not when a draft is only found again

  /** Passages taken up from a post: each carries a letter, the same in the post and in the reply. */
  const passages = computed(() => {
    const byPost = new Map<string, Array<{ exact: string, letter: string, byId: string }>>()
    for (const c of store.whole) {
      if (!c.takesUp) continue
      const list = byPost.get(c.takesUp.contributionId) ?? []
      list.push({ exact: c.takesUp.exact, letter: LETTERS[list.length % LETTERS.length]!, byId: c.id })
      byPost.set(c.takesUp.contributionId, list)
    }
    return byPost
  })
  const letters = computed(() => new Map([...passages.value.values()].flat().map(p => [p.byId, p.letter])))

  async function focusPost(id: string) {
    for (let c = store.contributions.find(x => x.id === id); c?.parentId; c = store.contributions.find(x => x.id === c!.parentId)) foldedThreads.delete(c.parentId)
    await nextTick()
    const element = document.getElementById(`c-${id}`)
    element?.focus({ preventScroll: true })
    element?.scrollIntoView({ block: 'center', behavior: matchMedia('(prefers-reduced-motion: reduce)').matches ? 'auto' : 'smooth' })
  }
  function reply(id: string, caret = true) {
    caretIn.value = caret
    if (replyTo.value !== id) takesUp.value = store.draftAt(id)?.takesUp ?? null
    foldedThreads.delete(id)
    replyTo.value = id
  }
  async function attempt(act: () => Promise<void>) {
    try { await act() }
    catch (error) { notices.warn(error) }
  }
  async function posted(id: string) {
    replyTo.value = null
    takesUp.value = null
    chosen.value = null
    await store.refresh()
    await focusPost(id)
    notices.say('Posted.', store.activity!.editMinutes > 0 ? { label: 'Withdraw it', run: () => withdraw(id) } : undefined)
  }
  const withdraw = (id: string) => attempt(async () => {
    await store.withdraw(id, true)
    notices.say('Withdrawn. Your text is kept.', { label: 'Put it back', run: () => putBack(id) })
  })
  const putBack = (id: string) => attempt(() => store.withdraw(id, false))
  const newBelow = (node: ThreadNode<ContributionView>): number =>
    node.replies.reduce((n, r) => n + (r.item.view === 'whole' && r.item.isNew ? 1 : 0) + newBelow(r), 0)

  const desk: ThreadDesk = {
    get activityId() { return store.activity?.id ?? '' },
    get mayWrite() { return store.activity?.open === true && seminar.shell?.role !== 'observer' },
    get minReply() { return store.activity?.expectations.map(e => e.rule).find(r => r.kind === 'replies')?.minWords ?? 1 },
    unfolded, foldedThreads, replyTo, takesUp, chosen, caretIn,
    passagesOf: id => passages.value.get(id) ?? [],
    letterOf: id => letters.value.get(id) ?? null,
    authorOf: (id) => { const c = store.whole.find(x => x.id === id); return c ? c.author.isMe ? 'you' : c.author.givenName : null },
    newBelow,
    draftAt: id => store.draftAt(id),
    toggleFold: (id) => { if (!unfolded.delete(id)) unfolded.add(id) },
    toggleThread: (id) => { if (!foldedThreads.delete(id)) foldedThreads.add(id) },
    reply,
    choose: (passage) => { chosen.value = passage },
    dropPassage: () => { takesUp.value = null },
    takeUp: (passage) => { reply(passage.contributionId); takesUp.value = passage; chosen.value = null },
    putAway: () => { replyTo.value = null; void attempt(() => store.refresh()) },
    posted: id => void attempt(() => posted(id)),
    nod: id => void attempt(() => store.nod(id)),
    withdraw: id => void withdraw(id),
    putBack: id => void putBack(id),
  }
  return { desk, focusPost, replyTo, takesUp, countReplies }
}
