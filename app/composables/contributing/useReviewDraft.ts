import { countWords } from '#core/contributing/measureText'
import { lacksOf } from '#core/contributing/review/missing'
import type { ReviewDesk, ReviewGiven } from '#shared/contributing/review'
import { ApiProblem, newKey, useApi } from '../shell/useApi'
import * as reviewEndpoints from '#shared/contributing/reviewEndpoints'

const PAUSE = 700 // milliseconds without a change before it is sent
export type ReviewSaving = 'empty' | 'saving' | 'saved' | 'not saved' | 'two texts'

/** What a reviewer gives, saved at every pause. A review changed in another window is never overwritten: both are offered. */
export function useReviewDraft(desk: ReviewDesk) {
  const api = useApi()
  const given = ref<ReviewGiven>(structuredClone(toRaw(desk.given)))
  const version = ref(desk.version)
  const state = ref<ReviewSaving>(desk.version === null ? 'empty' : 'saved')
  const problem = ref<string | null>(null)
  const theirs = shallowRef<{ given: ReviewGiven; version: number } | null>(null)
  const undo: ReviewGiven[] = []
  let timer: ReturnType<typeof setTimeout> | undefined
  let saving: Promise<void> = Promise.resolve()
  let changes = 0
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
    given.value = { ...given.value, ...part }
    changes++
    state.value = 'saving'
    problem.value = null
    clearTimeout(timer)
    timer = setTimeout(() => void save(), PAUSE)
  }
  function takeBack() {
    const before = undo.pop()
    if (before) change(before)
  }
  function save(): Promise<void> {
    clearTimeout(timer)
    saving = saving.then(saveOnce)
    return saving
  }
  async function saveOnce() {
    if (theirs.value || state.value === 'saved' || state.value === 'empty') return
    const at = changes
    try {
      const stored = await api.call(reviewEndpoints.saveReview, {
        params: { reviewId: desk.id },
        body: { ...toRaw(given.value), baseVersion: version.value },
      })
      version.value = stored.version
      if (changes === at) state.value = 'saved'
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      if (error.code === 'changedMeanwhile') {
        theirs.value = error.details.theirs as { given: ReviewGiven; version: number }
        state.value = 'two texts'
        return
      }
      state.value = 'not saved'
      problem.value = error.message
    }
  }
  /** Keeps one of two: mine on top of theirs, or theirs in its place. */
  function settle(mine: boolean) {
    if (!theirs.value) return
    version.value = theirs.value.version
    if (!mine) given.value = theirs.value.given
    theirs.value = null
    change({})
  }
  async function handIn(): Promise<number | null> {
    await save()
    if (state.value !== 'saved') return null
    try {
      return (
        await api.call(reviewEndpoints.handInReview, {
          params: { reviewId: desk.id },
          body: { key: newKey() },
        })
      ).handedIn
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      problem.value = error.message
      return null
    }
  }
  onMounted(() => {
    void api.call(reviewEndpoints.recordReviewOpened, { params: { reviewId: desk.id } }).catch(() => {})
  })
  onBeforeUnmount(() => void save())
  return { given, state, problem, theirs, lacks, words, change, takeBack, save, settle, handIn }
}
