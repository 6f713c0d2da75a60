import { countWords } from '#core/contributing/measureText'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { DraftView, TakesUp } from '#shared/contributing/thread'
import { ApiProblem, newKey, useApi } from '../shell/useApi'

export type DraftState = 'empty' | 'typing' | 'saved' | 'kept here' | 'two texts'

interface Place { readonly activityId: string, readonly parentId: string | null }
interface Kept { readonly doc: RichNode, readonly baseVersion: number | null }

const PAUSE = 700 // milliseconds without a key before a draft is sent
const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] }

/**
 * What is being written at one place: kept in the browser at every key, on the server at every pause, and posted once.
 * A text changed in another window is never overwritten: both are offered.
 */
export function useDraft(place: Place, stored: DraftView | null, takesUp: Ref<TakesUp | null>) {
  const api = useApi()
  const shelf = `jovrel:draft:${place.activityId}:${place.parentId ?? 'top'}`
  const kept = readKept(shelf)
  const version = ref(stored?.version ?? null)
  const doc = shallowRef<RichNode>(kept?.doc ?? stored?.doc as RichNode ?? EMPTY)
  const theirs = shallowRef<DraftView | null>(null)
  const problem = ref<string | null>(null)
  const state = ref<DraftState>(kept ? 'kept here' : stored ? 'saved' : 'empty')
  const text = computed(() => plainText(doc.value, { leaveOutQuotations: true }))
  const words = computed(() => countWords(text.value))
  // one key for one text: a post whose answer was lost is sent again under the same key
  let postKey = { key: newKey(), text: '' }
  let timer: ReturnType<typeof setTimeout> | undefined
  let saving: Promise<void> = Promise.resolve()
  let posted = false

  function write(next: RichNode) {
    doc.value = next
    problem.value = null
    state.value = 'typing'
    localStorage.setItem(shelf, JSON.stringify({ doc: next, baseVersion: version.value } satisfies Kept))
    clearTimeout(timer)
    timer = setTimeout(() => void save(), PAUSE)
  }

  /** Saves now; saves follow each other, never overlap. */
  function save(): Promise<void> {
    clearTimeout(timer)
    saving = saving.then(saveOnce)
    return saving
  }

  async function saveOnce() {
    const sent = doc.value
    if (posted || theirs.value || plainText(sent) === '') return
    try {
      const answer = await api.put<DraftView>(`/api/activities/${place.activityId}/draft`, { parentId: place.parentId, doc: sent, takesUp: takesUp.value, baseVersion: version.value })
      version.value = answer.version
      if (doc.value === sent) {
        localStorage.removeItem(shelf)
        state.value = 'saved'
      }
    }
    catch (error) {
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
    problem.value = error.at('doc') ?? error.at('takesUp') ?? error.message
  }

  /** Keeps one of two texts: mine goes on top of theirs, or theirs takes its place here. */
  function settle(mine: boolean) {
    if (!theirs.value) return
    version.value = theirs.value.version
    if (!mine) doc.value = theirs.value.doc as RichNode
    theirs.value = null
    write(doc.value)
  }

  /** @returns the id of what was posted, or null when it was refused; what was typed stays */
  async function post(): Promise<string | null> {
    clearTimeout(timer)
    await saving
    problem.value = null
    const now = JSON.stringify([doc.value, takesUp.value])
    if (postKey.text !== now) postKey = { key: newKey(), text: now }
    try {
      posted = true
      const answer = await api.post<{ id: string }>(`/api/activities/${place.activityId}/contributions`, { key: postKey.key, parentId: place.parentId, doc: doc.value, takesUp: takesUp.value })
      localStorage.removeItem(shelf)
      return answer.id
    }
    catch (error) {
      posted = false
      receive(error)
      return null
    }
  }

  async function discard() {
    clearTimeout(timer)
    posted = true
    await saving
    localStorage.removeItem(shelf)
    await api.remove(`/api/activities/${place.activityId}/draft`, { parentId: place.parentId })
  }

  onBeforeUnmount(() => { if (state.value === 'typing') void save() })
  if (kept) timer = setTimeout(() => void save(), PAUSE)

  return { doc, words, text, state, problem, theirs, write, save, settle, post, discard }
}

/** Text left in this browser by a closed tab, newer than anything the server has. */
function readKept(shelf: string): Kept | null {
  if (import.meta.server) return null
  try {
    const raw = localStorage.getItem(shelf)
    return raw ? JSON.parse(raw) as Kept : null
  }
  catch {
    return null
  }
}
