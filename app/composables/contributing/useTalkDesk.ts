import { KINDS } from '#core/kinds'
import type { TakesUp } from '#shared/contributing/thread'
import type { TalkDesk } from '~/components/contributing/talkDesk'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'

const LETTERS = 'abcdefghijklmnopqrstuvwxyz'

/**
 * Everything one does in a talk: fold, nod, take up a passage, reply, change, withdraw; as staff, keep on top and approve.
 * @param focusPost brings a contribution into view, wherever the page has it
 */
export function useTalkDesk(focusPost: (id: string) => Promise<void>) {
  const store = useThreadStore()
  const seminar = useSeminarStore()
  const notices = useNotices()
  const unfolded = reactive(new Set<string>())
  const foldedThreads = reactive(new Set<string>())
  const openThreads = reactive(new Set<string>())
  const replyTo = ref<string | null>(null)
  const editing = ref<string | null>(null)
  const takesUp = shallowRef<TakesUp | null>(null)
  const chosen = shallowRef<TakesUp | null>(null)
  const names = new Map<string, string>() // who wrote what, also once it is withdrawn under one's pen
  const caretIn = ref(true) // whether the caret goes into the reply box: not when a draft is only found again

  /** Passages taken up from a post: each carries a letter, the same in the post and in the reply. */
  const passages = computed(() => {
    const byPost = new Map<string, Array<{ exact: string; letter: string; byId: string }>>()
    for (const c of store.whole) {
      if (!c.takesUp) continue
      const list = byPost.get(c.takesUp.contributionId) ?? []
      list.push({ exact: c.takesUp.exact, letter: LETTERS[list.length % LETTERS.length]!, byId: c.id })
      byPost.set(c.takesUp.contributionId, list)
    }
    return byPost
  })
  const letters = computed(() => new Map([...passages.value.values()].flat().map(p => [p.byId, p.letter])))

  /** Unfolds everything above a contribution, so that it can be seen. */
  function uncover(id: string) {
    for (let c = store.byId.get(id); c; c = c.parentId ? store.byId.get(c.parentId) : undefined) {
      if (c.parentId) foldThread(c.parentId, false)
    }
  }
  function foldThread(id: string, folded: boolean) {
    if (folded) {
      foldedThreads.add(id)
      openThreads.delete(id)
    } else {
      foldedThreads.delete(id)
      openThreads.add(id)
    }
  }
  function reply(id: string, caret = true) {
    caretIn.value = caret
    editing.value = null
    if (replyTo.value !== id) takesUp.value = store.draftAt(id)?.takesUp ?? null
    replyTo.value = id
  }
  async function attempt(act: () => Promise<void>) {
    try {
      await act()
    } catch (error) {
      notices.warn(error)
    }
  }
  async function posted(id: string, state: 'shown' | 'awaitingApproval' | 'scheduled') {
    replyTo.value = null
    takesUp.value = null
    chosen.value = null
    await store.refresh()
    uncover(id)
    await focusPost(id)
    const undo = { label: 'Withdraw it', run: () => void withdraw(id) }
    const postedSentence = () => {
      if (state === 'awaitingApproval') return 'Handed in. The others see it once it is approved.'
      if (state === 'scheduled') return 'It shows itself at its time.'
      return 'Posted.'
    }
    notices.say(postedSentence(), (store.activity?.talk.withdrawMinutes ?? 0) > 0 ? undo : undefined)
  }
  const withdraw = (id: string) =>
    attempt(async () => {
      await store.withdraw(id, true)
      notices.say('Withdrawn. Your text is kept.', { label: 'Restore', run: () => putBack(id) })
    })
  const putBack = (id: string) => attempt(() => store.withdraw(id, false))

  const desk: TalkDesk = {
    get activityId() {
      return store.activity?.id ?? ''
    },
    // staff put their starter notes beside a text before it opens
    get mayWrite() {
      return (
        (store.activity?.open === true ||
          (seminar.isStaff && store.activity !== null && KINDS[store.activity.kind].staffBegin)) &&
        seminar.shell?.role !== 'observer' &&
        !seminar.shell?.archived
      )
    },
    get isStaff() {
      return seminar.isStaff
    },
    get attach() {
      return store.activity!.talk.attach
    },
    get combine() {
      return store.activity!.combine
    },
    unfolded,
    foldedThreads,
    openThreads,
    replyTo,
    editing,
    takesUp,
    chosen,
    caretIn,
    minWordsBelow: id => {
      // a question that staff put is answered; everything else is replied to
      const isQuestion =
        store.activity?.talk.threads === 'staff' && store.byId.get(id)?.parentId === null && seminar.isStudent
      const rule = store.activity?.expectations
        .map(e => e.rule)
        .find(r => (isQuestion ? r.kind === 'prompts' || r.kind === 'entries' : r.kind === 'replies'))
      return rule && 'minWords' in rule ? rule.minWords : 1
    },
    isVeiled: id => store.thread?.waitingAt.includes(id) ?? false,
    // where one replies to opening posts only, a reply offers no reply; a question is answered, and staff may always
    mayAnswer: c =>
      desk.mayWrite &&
      (seminar.isStaff || !(desk.isClosedToWords(null) || desk.isClosedToWords(c.threadId))) &&
      c.state === 'shown' &&
      (seminar.isStaff ||
        store.activity?.talk.replies !== 'top' ||
        c.parentId === null ||
        (store.activity.talk.threads === 'staff' && c.type === 'post')),
    passagesOf: id => passages.value.get(id) ?? [],
    letterOf: id => letters.value.get(id) ?? null,
    authorOf: id => {
      const c = store.byId.get(id)
      if (c?.view === 'whole') names.set(id, c.author.isMe ? 'you' : c.author.givenName)
      return names.get(id) ?? null
    },
    draftAt: id => store.draftAt(id),
    goTo: id => void focusPost(id),
    toggleFold: id => {
      if (!unfolded.delete(id)) unfolded.add(id)
    },
    foldThread,
    reply,
    edit: id => {
      editing.value = id
      if (id) replyTo.value = null
    },
    edited: () => {
      editing.value = null
      notices.say('Changed. The earlier text is kept for staff to see.')
    },
    choose: passage => {
      chosen.value = passage
    },
    dropPassage: () => {
      takesUp.value = null
    },
    takeUp: passage => {
      reply(passage.contributionId)
      takesUp.value = passage
      chosen.value = null
    },
    closeWriting: () => {
      replyTo.value = null
      void attempt(() => store.refresh())
    },
    posted: (id, state) => void attempt(() => posted(id, state)),
    nod: id => void attempt(() => store.nod(id)),
    mark: (id, mark) => void attempt(() => store.markOne(id, mark)),
    withdraw: id => void withdraw(id),
    putBack: id => void putBack(id),
    isClosedToWords: id =>
      id === null ? store.thread?.closedToWords === true : store.thread?.closedThreads.includes(id) === true,
    closeToWords: (id, closed) =>
      void attempt(async () => {
        await store.closeToWords(id, closed)
        const what = id === null ? 'This discussion' : 'This thread'
        notices.say(
          closed
            ? `${what} is closed: students can read it and write nothing new.`
            : `${what} takes new words again.`,
          { label: 'Undo', run: () => desk.closeToWords(id, !closed) },
        )
      }),
    keepOnTop: (id, onTop) =>
      void attempt(async () => {
        await store.keepOnTop(id, onTop)
        notices.say(onTop ? 'Kept on top for everyone.' : 'Back in the order of the talk.', {
          label: 'Undo',
          run: () => desk.keepOnTop(id, !onTop),
        })
      }),
    approve: id =>
      void attempt(async () => {
        await store.approve(id, { approved: true })
        notices.say('Shown to everyone now.')
      }),
    sendBack: (id, remark) =>
      void attempt(async () => {
        await store.approve(id, { approved: false, remark })
        notices.say('Sent back with your remark. It is still its author’s to change.')
      }),
  }
  return { desk, uncover }
}
