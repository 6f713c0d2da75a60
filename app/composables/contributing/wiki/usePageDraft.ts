import { plainText, type RichNode } from '#core/contributing/richText'
import type { Choice } from '#core/contributing/wiki/mergePages'
import type { Overlaps, PageView } from '#shared/contributing/wiki'
import { ApiProblem, newKey, useApi } from '~/composables/shell/useApi'
import { useWikiStore } from '~/stores/wiki'
import { forgetText, keepText, keptText } from '../shelf'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export type PageDraftState = 'as saved' | 'typing' | 'draft saved' | 'kept here' | 'two texts'
interface TheirDraft {
  readonly doc: RichNode
  readonly base: number
  readonly version: number
}

const PAUSE = 700 // milliseconds without a key before a draft is sent
const SIGN_OF_LIFE = 30_000 // milliseconds between telling others that one is writing

/**
 * A page while it is written: kept in the browser at every key, privately on the server at every pause, and saved as a
 * version when its writer says so. What others save meanwhile is joined in; where both changed the same words, both
 * stand side by side until the writer has chosen.
 */
export function usePageDraft(page: PageView) {
  const api = useApi()
  const store = useWikiStore()
  const shelf = `page:${page.id}`
  const doc = shallowRef<RichNode>((page.draft?.doc ?? page.doc) as RichNode)
  let base = page.draft?.base ?? page.number
  let version = page.draft?.version ?? null
  const state = ref<PageDraftState>(page.draft ? 'draft saved' : 'as saved')
  const problem = ref<string | null>(null)
  const theirs = shallowRef<TheirDraft | null>(null)
  const overlaps = shallowRef<Overlaps | null>(null)
  const choices = ref<Choice[]>([])
  const busy = ref(false)
  let key = { key: newKey(), text: '' } // one key for one text: sent again after a lost answer, it is saved once
  let timer: ReturnType<typeof setTimeout> | undefined
  let life: ReturnType<typeof setInterval> | undefined
  let saving: Promise<void> = Promise.resolve()
  let over = false
  let touched = false

  function write(next: RichNode) {
    touched = true
    doc.value = next
    problem.value = null
    // what was chosen was chosen for another text
    overlaps.value = null
    state.value = 'typing'
    void keepText(shelf, { doc: next, title: String(base), baseVersion: version })
    clearTimeout(timer)
    timer = setTimeout(() => void keep(), PAUSE)
  }
  /** Keeps the draft now; drafts follow each other, never overlap. */
  function keep(): Promise<void> {
    clearTimeout(timer)
    saving = saving.then(keepOnce)
    return saving
  }
  async function keepOnce() {
    const sent = doc.value
    if (over || theirs.value) return
    try {
      const answer = await api.call(wikiEndpoints.savePageDraft, {
        params: { pageId: page.id },
        body: {
          doc: sent,
          base,
          baseVersion: version,
        },
      })
      version = answer.version
      if (doc.value === sent) {
        await forgetText(shelf)
        state.value = 'draft saved'
      }
    } catch (error) {
      receive(error)
      if (!theirs.value) state.value = 'kept here'
    }
  }
  function receive(error: unknown) {
    if (!(error instanceof ApiProblem)) throw error
    if (error.code === 'changedMeanwhile') {
      theirs.value = error.details.theirs as TheirDraft
      state.value = 'two texts'
    } else if (error.code === 'overlaps') {
      // what was chosen already, between the same words, stays chosen
      const before = new Map(overlaps.value?.overlaps.map((o, i) => [JSON.stringify(o), choices.value[i]]))
      overlaps.value = error.details.theirs as Overlaps
      choices.value = overlaps.value.overlaps.map(o => before.get(JSON.stringify(o))!)
      problem.value = null
    } else problem.value = error.at('doc') ?? error.message
  }
  function settle(mine: boolean) {
    if (!theirs.value) return
    version = theirs.value.version
    if (!mine) {
      doc.value = theirs.value.doc
      base = theirs.value.base
    }
    theirs.value = null
    write(doc.value)
  }
  const chosen = computed(
    () => overlaps.value !== null && choices.value.filter(Boolean).length === overlaps.value.overlaps.length,
  )

  /** Saves a version. @returns it, or null when it was refused or there is something to choose; the text stays */
  async function save(summary: string, actsOn: readonly string[]) {
    if (busy.value || (overlaps.value && !chosen.value)) return null
    busy.value = true
    clearTimeout(timer)
    problem.value = null
    try {
      await saving
      const chosenFor = overlaps.value?.overlaps.map((o, i) => ({ ...o, choice: choices.value[i]! })) ?? []
      const now = JSON.stringify([doc.value, base, summary, actsOn, chosenFor])
      if (key.text !== now) key = { key: newKey(), text: now }
      const answer = await store.save(page.id, {
        key: key.key,
        doc: doc.value,
        base,
        summary,
        actsOn: [...actsOn],
        chosen: chosenFor,
      })
      over = true
      await forgetText(shelf)
      return answer
    } catch (error) {
      receive(error)
      if (error instanceof ApiProblem && error.status === 0) {
        state.value = 'kept here'
        void keepText(shelf, { doc: doc.value, title: String(base), baseVersion: version })
      }
      return null
    } finally {
      busy.value = false
    }
  }
  /** Puts the pen down: what was written stays as a draft of one's own. */
  async function away() {
    if (state.value === 'typing') await keep()
    over = true
  }
  async function discard() {
    over = true
    clearTimeout(timer)
    await saving
    await forgetText(shelf)
    await api.call(wikiEndpoints.discardPageDraft, { params: { pageId: page.id } })
  }

  onMounted(async () => {
    const beat = () => void store.writing(page.id, true).catch(() => {})
    beat()
    life = setInterval(beat, SIGN_OF_LIFE)
    const kept = await keptText(shelf)
    if (!kept || touched) return
    // text left in this browser by a closed tab, newer than anything the server has
    doc.value = kept.doc
    base = Number(kept.title) || base
    version = kept.baseVersion
    state.value = 'kept here'
    timer = setTimeout(() => void keep(), PAUSE)
  })
  onBeforeUnmount(() => {
    clearInterval(life)
    if (state.value === 'typing') void keep()
    void store.writing(page.id, false).catch(() => {})
  })
  const isEmpty = computed(() => plainText(doc.value) === '')
  return {
    doc,
    state,
    problem,
    theirs,
    overlaps,
    choices,
    chosen,
    busy,
    isEmpty,
    base: () => base,
    write,
    keep,
    settle,
    save,
    away,
    discard,
  }
}
