import type { Kept } from '~/autosave/autosave'
import { countWords } from '#core/contributing/measureText'
import { lacksOf } from '#core/kinds/review/missing'
import type { ReviewDesk, ReviewGiven } from '#shared/kinds/review/review'
import { failureOf } from '~/autosave/failureOf'
import { localDraft } from '~/autosave/localDraft'
import { ApiProblem, newKey, useApi } from '../shell/useApi'
import { useAutosave } from '../shell/useAutosave'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

const PAUSE = 700 // milliseconds without a change before it is sent
export type ReviewSaving = 'empty' | 'saving' | 'saved' | 'not saved' | 'two texts'

/** What a reviewer gives, saved at every pause. A review changed in another window is never overwritten: both are offered. */
export function useReviewDraft(desk: ReviewDesk) {
  const api = useApi()
  const params = { reviewId: desk.id }
  const autosave = useAutosave<ReviewGiven>({
    value: structuredClone(toRaw(desk.given)),
    version: desk.version,
    pause: PAUSE,
    send: (given, baseVersion) =>
      api.call(reviewEndpoints.saveReview, { params, body: { ...given, baseVersion } }),
    failureOf: error =>
      failureOf(error, theirs => {
        const { given, version } = theirs as { given: ReviewGiven; version: number } // what a conflict about a review answers
        return { value: given, version }
      }),
    localDraft: localDraft(`jovrel:review:${desk.id}`, {
      write: kept => kept,
      read: written => written as Kept<ReviewGiven>, // only this form is written under that name
    }),
  })
  const given = autosave.value
  const theirs = computed(() => (autosave.theirs.value ? { given: autosave.theirs.value } : null))
  const state = computed<ReviewSaving>(() => {
    const { kind } = autosave.status.value
    if (kind === 'stored') return autosave.version.value === null ? 'empty' : 'saved'
    if (kind === 'conflict') return 'two texts'
    return kind === 'changed' || kind === 'sending' ? 'saving' : 'not saved'
  })
  const said = ref<string | null>(null) // about handing in
  const problem = computed(() => said.value ?? autosave.problem.value?.detail ?? null)
  const undo: ReviewGiven[] = []
  const lacks = computed(() =>
    lacksOf(given.value, {
      criteria: desk.criteria,
      questions: desk.questions,
      remarkWords: desk.remarkWords,
    }),
  )
  const words = computed(() =>
    [
      ...Object.values(given.value.remarks),
      ...Object.values(given.value.answers),
      ...given.value.passages.map(p => p.note),
    ].reduce((sum, text) => sum + countWords(text), 0),
  )

  /** Changes a part; `step` keeps what stood before, to be taken back. */
  function change(part: Partial<ReviewGiven>, step = false) {
    if (step) undo.push(given.value)
    said.value = null
    autosave.change({ ...given.value, ...part })
  }
  function takeBack() {
    const before = undo.pop()
    if (before) change(before)
  }
  /** Keeps one of two: mine on top of theirs, or theirs in its place. */
  const settle = (mine: boolean) => autosave.settle(mine ? 'mine' : 'theirs')
  const say = (sentence: string) => {
    said.value = sentence
  }
  async function handIn(): Promise<number | null> {
    await autosave.flush()
    if (autosave.isUnstored.value || autosave.version.value === null) return null
    try {
      const answer = await api.call(reviewEndpoints.handInReview, { params, body: { key: newKey() } })
      return answer.handedIn
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      said.value = error.message
      return null
    }
  }
  onMounted(() => {
    void api.call(reviewEndpoints.recordReviewOpened, { params }).catch(() => {})
  })
  return {
    given,
    state,
    problem,
    theirs,
    lacks,
    words,
    say,
    change,
    takeBack,
    save: autosave.flush,
    settle,
    handIn,
  }
}
