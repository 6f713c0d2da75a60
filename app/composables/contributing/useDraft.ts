import { addressOf } from '#shared/http/endpoint'
import { countWords } from '#core/contributing/measureText'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { NoteDetail } from '#shared/contributing/reading'
import type { TermDetail } from '#shared/contributing/term'
import type { AttachedFile, DraftView, TakesUp } from '#shared/contributing/thread'
import { ApiProblem, newKey, useApi } from '../shell/useApi'
import { forgetText, keepText, keptText, queuePost } from './shelf'
import { useOutbox } from './useOutbox'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export type DraftState = 'empty' | 'typing' | 'saved' | 'kept here' | 'two texts' | 'waiting'

/** Where one writes: below what, and which of several texts begun there. */
export interface WritingPlace {
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

/**
 * What is being written at one place: kept in the browser at every key, on the server at every pause, and posted once.
 * Without a connection it waits in the browser and is sent when there is one. A text changed in another window is never
 * overwritten: both are offered.
 */
export function useDraft(
  place: WritingPlace,
  stored: DraftView | null,
  takesUp: Ref<TakesUp | null>,
  note: Ref<NoteDetail | null> = ref(null),
) {
  const api = useApi()
  const outbox = useOutbox()
  const shelf = `draft:${place.activityId}:${place.parentId ?? 'top'}:${place.slot ?? ''}`
  const version = ref(stored?.version ?? null)
  const doc = shallowRef<RichNode>((stored?.doc as RichNode) ?? EMPTY)
  const title = ref(stored?.title ?? null)
  const term = shallowRef<TermDetail | null>(stored?.term ?? null)
  const files = shallowRef<readonly AttachedFile[]>(stored?.files ?? [])
  const theirs = shallowRef<DraftView | null>(null)
  const problem = ref<string | null>(null)
  const state = ref<DraftState>(stored ? 'saved' : 'empty')
  const text = computed(() => plainText(doc.value, { leaveOutQuotations: true }))
  const words = computed(() => countWords(text.value))
  // one key for one text: a post whose answer was lost is sent again under the same key
  let postKey = { key: newKey(), text: '' }
  let timer: ReturnType<typeof setTimeout> | undefined
  let saving: Promise<void> = Promise.resolve()
  let posted = false
  let touched = false

  const written = () => ({
    parentId: place.parentId,
    slot: place.slot ?? '',
    promptId: place.promptId ?? null,
    title: title.value || null,
    term: term.value,
    note: note.value,
    fileIds: files.value.map(f => f.id),
    doc: doc.value,
    takesUp: takesUp.value,
  })

  function write(next: RichNode) {
    touched = true
    doc.value = next
    problem.value = null
    state.value = 'typing'
    void keepText(shelf, { doc: next, title: title.value, term: term.value, baseVersion: version.value })
    clearTimeout(timer)
    timer = setTimeout(() => void save(), PAUSE)
  }
  const setTitle = (next: string) => {
    title.value = next
    write(doc.value)
  }
  const setTerm = (next: TermDetail) => {
    term.value = next
    write(doc.value)
  }
  const setFiles = (next: readonly AttachedFile[]) => {
    files.value = next
    write(doc.value)
  }

  /** Saves now; saves follow each other, never overlap. */
  function save(): Promise<void> {
    clearTimeout(timer)
    saving = saving.then(saveOnce)
    return saving
  }

  async function saveOnce() {
    const sent = doc.value
    if (
      posted ||
      theirs.value ||
      (plainText(sent) === '' && files.value.length === 0 && !term.value?.term && version.value === null)
    )
      return
    try {
      const answer = await api.call(contributingEndpoints.saveDraft, {
        params: { activityId: place.activityId },
        body: {
          ...written(),
          baseVersion: version.value,
        },
      })
      version.value = answer.version
      if (doc.value === sent) {
        await forgetText(shelf)
        state.value = 'saved'
      }
    } catch (error) {
      receive(error)
      if (!theirs.value) state.value = 'kept here'
    }
  }

  function receive(error: unknown) {
    if (!(error instanceof ApiProblem)) throw error
    if (error.code === 'changedMeanwhile') {
      theirs.value = error.details.theirs as DraftView
      state.value = 'two texts'
      return
    }
    problem.value =
      error.at('doc') ??
      error.at('term') ??
      error.at('category') ??
      error.at('takesUp') ??
      error.at('note') ??
      error.at('fileIds') ??
      error.at('title') ??
      error.message
  }

  /** Keeps one of two texts: mine goes on top of theirs, or theirs takes its place here. */
  function settle(mine: boolean) {
    if (!theirs.value) return
    version.value = theirs.value.version
    if (!mine) doc.value = theirs.value.doc as RichNode
    theirs.value = null
    write(doc.value)
  }

  /** @returns what was posted, or null when it was refused or waits for a connection; what was typed stays */
  async function post(more: { readonly showAt?: string } = {}): Promise<Posted | null> {
    clearTimeout(timer)
    await saving
    problem.value = null
    const now = JSON.stringify([
      doc.value,
      takesUp.value,
      title.value,
      term.value,
      note.value,
      files.value.map(f => f.id),
      more,
    ])
    if (postKey.text !== now) postKey = { key: newKey(), text: now }
    const path = addressOf(contributingEndpoints.postContribution, {
      params: { activityId: place.activityId },
    })
    const body = { ...written(), ...more, key: postKey.key }
    try {
      posted = true
      const answer = await api.call(contributingEndpoints.postContribution, {
        params: { activityId: place.activityId },
        body,
      })
      await forgetText(shelf)
      return answer
    } catch (error) {
      posted = false
      if (error instanceof ApiProblem && error.status === 0 && !navigator.onLine) {
        await keepText(shelf, {
          doc: doc.value,
          title: title.value,
          term: term.value,
          baseVersion: version.value,
        })
        await queuePost({ path, body, shelf })
        state.value = 'waiting'
        return null
      }
      receive(error)
      return null
    }
  }

  async function discard() {
    clearTimeout(timer)
    posted = true
    await saving
    await forgetText(shelf)
    await api.call(contributingEndpoints.discardDraft, {
      params: { activityId: place.activityId },
      body: {
        parentId: place.parentId,
        slot: place.slot ?? '',
      },
    })
  }

  /** Listens for what waited to be sent from here. */
  function onSent(heard: (id: string) => void) {
    outbox.onSent((sent, result) => {
      if (sent.shelf !== shelf) return
      if ('problem' in result) {
        state.value = 'kept here'
        receive(result.problem)
        return
      }
      posted = true
      heard(result.id)
    })
  }

  onMounted(async () => {
    // text left in this browser by a closed tab, newer than anything the server has
    const kept = await keptText(shelf)
    if (!kept || touched) return
    doc.value = kept.doc
    title.value = kept.title
    if (kept.term) term.value = kept.term
    version.value = kept.baseVersion
    state.value = 'kept here'
    timer = setTimeout(() => void save(), PAUSE)
  })
  onBeforeUnmount(() => {
    if (state.value === 'typing') void save()
  })

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
    save,
    settle,
    post,
    discard,
    onSent,
  }
}
