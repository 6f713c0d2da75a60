import isSame from 'fast-deep-equal'
import { addressOf } from '#shared/http/endpoint'
import { countWords } from '#core/contributing/measureText'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { NoteDetail } from '#shared/kinds/reading/reading'
import type { TermDetail } from '#shared/kinds/lexicon/term'
import type { AttachedFile, DraftView, TakesUp } from '#shared/contributing/thread'
import type { ProblemDetails } from '#shared/http/problem'
import { sendKey } from '~/autosave/sendKey'
import { ApiProblem, useApi } from '../shell/useApi'
import { failureOf } from '~/autosave/failureOf'
import { useAutosave } from '../shell/useAutosave'
import { forgetPost, queuePost, textDraft, type KeptText, type WaitingPost } from './localDrafts'
import { useOutbox } from './useOutbox'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export type DraftState = 'empty' | 'typing' | 'saved' | 'kept here' | 'not kept' | 'two texts' | 'waiting'

/** Where one writes: below what, and which of several texts begun there. */
export interface WritingTarget {
  readonly activityId: string
  readonly parentId: string | null
  readonly slot?: string
  readonly promptId?: string | null
}
interface Posted {
  readonly id: string
  readonly state: 'shown' | 'awaitingApproval' | 'scheduled'
}

const PAUSE = 700 // milliseconds without a key before a draft is sent
const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] }

interface DraftText {
  readonly doc: RichNode
  readonly title: string | null
  readonly term: TermDetail | null
  readonly files: readonly AttachedFile[]
}

const textOf = (stored: DraftView | null): DraftText => ({
  doc: (stored?.doc as RichNode | undefined) ?? EMPTY, // kept as the editor made it
  title: stored?.title ?? null,
  term: stored?.term ?? null,
  files: stored?.files ?? [],
})
const isNothing = ({ doc, term, files }: DraftText) =>
  plainText(doc) === '' && files.length === 0 && !term?.term
/** Fields a refusal can be about, the first one first. */
const FIELDS = ['doc', 'term', 'category', 'takesUp', 'note', 'fileIds', 'title'] as const
const sentenceOf = (details: ProblemDetails) =>
  FIELDS.map(field => details.fields?.[field]).find(Boolean) ?? details.detail

/**
 * What is being written at one target: kept in the browser at every key, on the server at every pause, and posted once.
 * Without a connection it waits in the browser and is sent when there is one. A text changed in another window is never
 * overwritten: both are offered.
 */
export function useDraft(
  target: WritingTarget,
  stored: DraftView | null,
  takesUp: Ref<TakesUp | null>,
  note: Ref<NoteDetail | null> = ref(null),
) {
  const api = useApi()
  const outbox = useOutbox()
  const params = { activityId: target.activityId }
  const draftKey = `draft:${target.activityId}:${target.parentId ?? 'top'}:${target.slot ?? ''}`
  const autosave = useAutosave<DraftText>({
    value: textOf(stored),
    version: stored?.version ?? null,
    pause: PAUSE,
    isWorthSending: (text, version) => version !== null || !isNothing(text),
    send: (text, baseVersion) =>
      api.call(contributingEndpoints.saveDraft, { params, body: { ...written(text), baseVersion } }),
    failureOf: error =>
      failureOf(error, theirs => {
        const view = theirs as DraftView // what a conflict about a draft answers
        return { value: textOf(view), version: view.version }
      }),
    localDraft: textDraft(draftKey, {
      write: ({ value: { doc, title, term }, version, unanswered }) => ({
        doc,
        title,
        term,
        baseVersion: version,
        unanswered: unanswered?.map(u => ({ doc: u.doc, title: u.title, term: u.term })),
      }),
      read: (kept, now) => {
        const whole = (text: Pick<KeptText, 'doc' | 'title' | 'term'>): DraftText => ({
          doc: text.doc,
          title: text.title,
          term: text.term ?? now.value.term,
          files: now.value.files,
        })
        return {
          value: whole(kept),
          version: kept.baseVersion,
          unanswered: kept.unanswered?.map(whole),
        }
      },
    }),
  })
  const now = autosave.value
  const doc = computed(() => now.value.doc)
  const title = computed(() => now.value.title)
  const term = computed(() => now.value.term)
  const files = computed(() => now.value.files)
  const { theirs } = autosave
  const waits = ref(false) // to be posted once there is a connection
  const refused = shallowRef<ProblemDetails | null>(null) // what posting was answered
  const problem = computed(() => {
    const details = refused.value ?? autosave.problem.value
    return details && sentenceOf(details)
  })
  const state = computed<DraftState>(() => (waits.value ? 'waiting' : stateOf()))
  function stateOf(): DraftState {
    const status = autosave.status.value
    const { kind } = status
    if (kind === 'stored') return autosave.version.value === null ? 'empty' : 'saved'
    if (kind === 'conflict') return 'two texts'
    if (kind === 'changed' || kind === 'sending') return 'typing'
    return kind === 'kept' && !status.isInBrowser ? 'not kept' : 'kept here'
  }
  const text = computed(() => plainText(doc.value, { leaveOutQuotations: true }))
  const words = computed(() => countWords(text.value))
  const postKey = sendKey(() => draftKey)
  let waitingKey: string | null = null // of what waits to be posted

  const written = (of: DraftText) => ({
    parentId: target.parentId,
    slot: target.slot ?? '',
    promptId: target.promptId ?? null,
    title: of.title || null,
    term: of.term,
    note: note.value,
    fileIds: of.files.map(f => f.id),
    doc: of.doc,
    takesUp: takesUp.value,
  })

  function change(part: Partial<DraftText>) {
    refused.value = null
    if (waits.value) takeOutOfOutbox()
    autosave.change({ ...now.value, ...part })
  }
  /** What is typed on is no longer what waits: it is posted when its writer says so again. */
  function takeOutOfOutbox() {
    waits.value = false
    autosave.resume()
    if (waitingKey !== null) void forgetPost(waitingKey)
  }
  const write = (next: RichNode) => change({ doc: next })
  const setTitle = (next: string) => change({ title: next })
  const setTerm = (next: TermDetail) => change({ term: next })
  const setFiles = (next: readonly AttachedFile[]) => change({ files: next })

  /** Keeps one of two texts: mine goes on top of theirs, or theirs takes its place here. */
  const settle = (mine: boolean) => autosave.settle(mine ? 'mine' : 'theirs')

  /** @returns what was posted, or null when it was refused or waits for a connection; what was typed stays */
  async function post(more: { readonly showAt?: string } = {}): Promise<Posted | null> {
    await autosave.hold()
    refused.value = null
    const body = { ...written(now.value), ...more }
    const keyed = { ...body, key: postKey.for(body) }
    autosave.keep()
    // in the browser before it goes: if the tab is closed before the answer, it is sent again under the same key
    const isQueued = await queuePost({
      path: addressOf(contributingEndpoints.postContribution, { params }),
      body: keyed,
      shelf: draftKey,
    })
    try {
      const answer = await api.call(contributingEndpoints.postContribution, { params, body: keyed })
      autosave.forget()
      postKey.forget()
      await forgetPost(keyed.key)
      return answer
    } catch (error) {
      const isWithoutConnection =
        isQueued && error instanceof ApiProblem && error.status === 0 && !navigator.onLine
      if (!isWithoutConnection) await forgetPost(keyed.key)
      if (!isWithoutConnection) autosave.resume() // otherwise a draft would be stored anew beside what is posted
      if (!(error instanceof ApiProblem)) throw error
      if (isWithoutConnection) {
        waitingKey = keyed.key
        waits.value = true
      } else refused.value = error.details
      return null
    }
  }

  async function discard() {
    await autosave.hold()
    autosave.forget()
    await api.call(contributingEndpoints.discardDraft, {
      params,
      body: { parentId: target.parentId, slot: target.slot ?? '' },
    })
  }

  /** Whether what was posted is what stands here: then nothing of it is left to write. */
  function saysTheSame(sent: WaitingPost['body']): boolean {
    const here = written(now.value)
    return isSame([sent.doc, sent.title ?? null, sent.fileIds ?? []], [here.doc, here.title, here.fileIds])
  }
  /** Listens for what waited to be sent from here. */
  function onSent(onMessage: (id: string) => void) {
    outbox.onSent((sent, result) => {
      if (sent.shelf !== draftKey) return
      const isTypedOn = !saysTheSame(sent.body)
      waits.value = false
      postKey.done()
      if ('problem' in result) {
        autosave.resume()
        refused.value = result.problem.details
        return
      }
      // it was on its way already when its writer typed on: what is new stays here as a draft
      if (!isTypedOn) {
        void autosave.hold()
        autosave.forget()
      }
      onMessage(result.id)
    })
  }

  return {
    doc,
    title,
    term,
    setTerm,
    files,
    words,
    text,
    state,
    problem,
    theirs,
    write,
    setTitle,
    setFiles,
    save: autosave.flush,
    settle,
    post,
    discard,
    onSent,
  }
}
