import { plainText, type RichNode } from '#core/contributing/richText'
import type { Choice } from '#core/kinds/wiki/mergePages'
import type { Overlaps, PageView } from '#shared/kinds/wiki/wiki'
import { ApiProblem, newKey, useApi } from '~/composables/shell/useApi'
import { useWikiStore } from '~/stores/wiki'
import { failureOf } from '~/autosave/failureOf'
import { useAutosave } from '~/composables/shell/useAutosave'
import { textDraft, type KeptText } from '~/composables/contributing/localDrafts'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export type PageDraftState = 'as saved' | 'typing' | 'draft saved' | 'kept here' | 'not kept' | 'two texts'
interface PageText {
  readonly doc: RichNode
  readonly base: number // number of the version it was begun from
}

const written = ({ doc, base }: PageText) => ({ doc, title: String(base) })
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
  const params = { pageId: page.id }
  const autosave = useAutosave<PageText>({
    // documents are kept as the editor made them
    value: { doc: (page.draft?.doc ?? page.doc) as RichNode, base: page.draft?.base ?? page.number },
    version: page.draft?.version ?? null,
    pause: PAUSE,
    send: ({ doc, base }, baseVersion) =>
      api.call(wikiEndpoints.savePageDraft, { params, body: { doc, base, baseVersion } }),
    failureOf: error =>
      failureOf(error, theirs => {
        const { version, ...value } = theirs as PageText & { readonly version: number } // what a conflict about a draft answers
        return { value, version }
      }),
    // the number of a version is kept where other texts keep their title
    localDraft: textDraft(`page:${page.id}`, {
      write: ({ value, version, unanswered }) => ({
        ...written(value),
        baseVersion: version,
        unanswered: unanswered?.map(written),
      }),
      read: (kept, now) => {
        const whole = (text: Pick<KeptText, 'doc' | 'title'>): PageText => ({
          doc: text.doc,
          base: Number(text.title) || now.value.base,
        })
        return { value: whole(kept), version: kept.baseVersion, unanswered: kept.unanswered?.map(whole) }
      },
    }),
  })
  const doc = computed(() => autosave.value.value.doc)
  const base = () => autosave.value.value.base
  const { theirs } = autosave
  const state = computed<PageDraftState>(() => {
    const status = autosave.status.value
    const { kind } = status
    if (kind === 'stored') return autosave.version.value === null ? 'as saved' : 'draft saved'
    if (kind === 'conflict') return 'two texts'
    if (kind === 'changed' || kind === 'sending') return 'typing'
    return kind === 'kept' && !status.isInBrowser ? 'not kept' : 'kept here'
  })
  const refused = ref<string | null>(null) // what saving a version was answered
  const problem = computed(() => {
    const details = autosave.problem.value
    return refused.value ?? details?.fields?.doc ?? details?.detail ?? null
  })
  const overlaps = shallowRef<Overlaps | null>(null)
  const choices = ref<Choice[]>([])
  const busy = ref(false)
  let key = { key: newKey(), text: '' } // one key for one text: sent again after a lost answer, it is saved once
  let life: ReturnType<typeof setInterval> | undefined

  function write(next: RichNode) {
    refused.value = null
    // what was chosen was chosen for another text
    overlaps.value = null
    autosave.change({ ...autosave.value.value, doc: next })
  }
  function offerOverlaps(found: Overlaps) {
    // what was chosen already, between the same words, stays chosen
    const before = new Map(overlaps.value?.overlaps.map((o, i) => [JSON.stringify(o), choices.value[i]]))
    overlaps.value = found
    choices.value = found.overlaps.map(o => before.get(JSON.stringify(o))!)
  }
  const settle = (mine: boolean) => autosave.settle(mine ? 'mine' : 'theirs')
  const chosen = computed(
    () => overlaps.value !== null && choices.value.filter(Boolean).length === overlaps.value.overlaps.length,
  )

  /** Saves a version. @returns it, or null when it was refused or there is something to choose; the text stays */
  async function save(summary: string, actsOn: readonly string[]) {
    if (busy.value || (overlaps.value && !chosen.value)) return null
    busy.value = true
    refused.value = null
    try {
      await autosave.hold()
      const chosenFor = overlaps.value?.overlaps.map((o, i) => ({ ...o, choice: choices.value[i]! })) ?? []
      const body = { doc: doc.value, base: base(), summary, actsOn: [...actsOn], chosen: chosenFor }
      const same = JSON.stringify(body)
      if (key.text !== same) key = { key: newKey(), text: same }
      const answer = await store.save(page.id, { ...body, key: key.key })
      autosave.forget()
      return answer
    } catch (error) {
      autosave.keep()
      autosave.resume()
      if (!(error instanceof ApiProblem)) throw error
      if (error.code === 'overlaps')
        offerOverlaps(error.details.theirs as Overlaps) // what that code comes with
      else refused.value = error.at('doc') ?? error.message
      return null
    } finally {
      busy.value = false
    }
  }
  /** Puts the pen down: what was written stays as a draft of one's own. */
  async function away() {
    if (state.value === 'typing') await autosave.flush()
    await autosave.hold()
  }
  async function discard() {
    await autosave.hold()
    autosave.forget()
    await api.call(wikiEndpoints.discardPageDraft, { params })
  }

  onMounted(() => {
    const beat = () => void store.writing(page.id, true).catch(() => {})
    beat()
    life = setInterval(beat, SIGN_OF_LIFE)
  })
  onBeforeUnmount(() => {
    clearInterval(life)
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
    base,
    write,
    keep: autosave.flush,
    settle,
    save,
    away,
    discard,
  }
}
