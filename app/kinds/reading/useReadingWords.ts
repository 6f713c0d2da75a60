import type { Ref } from 'vue'
import { isSet } from '#core/kinds/reading/reading'
import { capital, inWords } from '#core/language'
import type { WholeContribution } from '#shared/contributing/thread'
import { useTimes } from '~/composables/planning/useTimes'
import { useReadingStore } from '~/stores/reading'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'

/** What a reading says of itself: which pages are set, how long they take, what has come meanwhile. */
export function useReadingWords(
  word: Readonly<Ref<string>>,
  arrived: Readonly<Ref<readonly WholeContribution[]>>,
) {
  const thread = useThreadStore()
  const store = useReadingStore()
  const seminar = useSeminarStore()
  const { dayTime } = useTimes()
  const parts = computed(() => store.view?.text?.parts ?? [])
  const setWords = computed(() => {
    const v = store.view
    if (!v?.text || (v.from === 1 && (v.to === null || v.to >= parts.value.length))) return null
    const [a, b] = [parts.value[v.from - 1]?.label, parts.value[(v.to ?? parts.value.length) - 1]?.label]
    const which = a === b ? `${word.value} ${a} is` : `${word.value}s ${a}–${b} are`
    return `${which} ${seminar.isStaff ? 'set' : 'yours'}; the rest is context.`
  })
  const waitingWords = computed(() => {
    if (!thread.thread?.waiting) return null
    const until = thread.activity?.hiddenUntil
    return until
      ? `The others’ notes are shown to everyone ${dayTime(until)}.`
      : 'The others’ notes appear once one of your own is in.'
  })
  const minutes = computed(() => {
    const set = parts.value.filter(p => isSet(store.view!, p.number)).reduce((s, p) => s + p.words, 0)
    return store.view?.text?.form === 'recording' || set === 0 ? null : Math.max(1, Math.round(set / 220))
  })
  const arrivedWords = computed(() => {
    const n = arrived.value.length
    const last = arrived.value.at(-1)
    if (n === 0 || !last) return ''
    if (n > 1) return `${capital(inWords(n))} new notes and answers have come.`
    if (last.parentId) return `${last.author.givenName} answered a note just now.`
    return `${last.author.givenName} wrote in the margin just now.`
  })
  return { setWords, waitingWords, minutes, arrivedWords }
}
