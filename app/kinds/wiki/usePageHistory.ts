import type { PageView } from '#shared/kinds/wiki/wiki'
import type { AuthoredBlock, Compared } from '~/workers/pages.worker'
import { inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { usePageWorker } from './usePageWorker'

const BURST = 5 // versions the newest is compared across at first
const PACE = 1600 // milliseconds a version stands while the history plays

/** Two versions of a page held against each other, and its history played: which two, what changed, whose words stand. */
export function usePageHistory(
  page: () => PageView | null,
  start: { readonly a: string | null; readonly b: string | null },
  remember: () => void,
) {
  const worker = usePageWorker(() => page()?.id ?? null)
  const { shortDayTime } = useTimes()
  const newest = computed(() => page()?.number ?? 0)
  const a = ref(0) // 0: from the empty page
  const b = ref(0)
  const compared = shallowRef<Compared | null>(null)
  const authored = shallowRef<readonly AuthoredBlock[] | null>(null)
  const failed = ref<string | null>(null)
  const playing = ref(false)
  let timer: ReturnType<typeof setTimeout> | undefined
  let asked = 0

  /** The newest, across the last few. */
  function toNewest() {
    b.value = newest.value
    a.value = Math.max(0, newest.value - BURST)
  }
  toNewest()
  if (start.b !== null) b.value = Math.min(newest.value, Math.max(1, Number(start.b) || newest.value))
  if (start.a !== null) a.value = Math.min(Math.max(0, Number(start.a) || 0), Math.max(0, b.value - 1))
  else a.value = Math.min(a.value, Math.max(0, b.value - 1))

  async function compare() {
    const mine = ++asked
    failed.value = null
    if (!page() || b.value === 0) {
      compared.value = null
      authored.value = null
      return
    }
    try {
      const [changes, words] = await Promise.all([worker.compare(a.value, b.value), worker.authors(b.value)])
      if (mine !== asked) return
      compared.value = changes
      authored.value = words
    } catch (problem) {
      if (mine === asked) failed.value = problem instanceof Error ? problem.message : String(problem)
    }
  }
  onMounted(() => {
    watch([a, b, () => page()?.id], () => void compare(), { immediate: true })
  })

  function choose(from: number, to: number) {
    stop()
    a.value = Math.max(0, from)
    b.value = to
    remember()
  }
  const step = (by: number) => {
    const to = Math.min(newest.value, Math.max(1, b.value + by))
    if (to !== b.value) choose(to - 1, to)
  }
  function stop() {
    playing.value = false
    clearTimeout(timer)
  }
  /** Plays on from here, or from the beginning once it has come to the end. */
  function play() {
    if (playing.value) {
      stop()
      return
    }
    playing.value = true
    if (b.value >= newest.value) {
      a.value = 0
      b.value = 1
    }
    const next = () => {
      if (!playing.value) return
      if (b.value >= newest.value) {
        stop()
        remember()
        return
      }
      a.value = b.value
      b.value++
      if (b.value < newest.value) void worker.version(b.value + 1).catch(() => {})
      timer = setTimeout(next, PACE)
    }
    timer = setTimeout(next, PACE)
  }
  onBeforeUnmount(stop)

  const span = computed(() => page()?.versions.filter(v => v.number > a.value && v.number <= b.value) ?? [])
  /** What happened between the two, in a sentence. */
  const words = computed(() => {
    if (!compared.value) return ''
    const people = new Set(span.value.map(v => v.author.id)).size
    const days = new Set(span.value.map(v => v.savedAt.slice(0, 10))).size
    const { added, removed, moved } = compared.value
    const [first] = span.value
    const who =
      people === 1
        ? `by ${first?.author.isMe ? 'you' : (first?.author.givenName ?? 'one')}`
        : `by ${inWords(people)}`
    const sinceWords = () => {
      if (days > 1) return `in ${inWords(days)} days`
      if (first) return `on ${shortDayTime(first.savedAt).split(' ')[0]}`
      return ''
    }
    const versions = a.value === 0 ? `Up to version ${b.value}` : `Version ${a.value} to ${b.value}`
    const movedWords = moved > 0 ? `, ${inWords(moved)} ${plural(moved, 'paragraph')} moved` : ''
    const changes = `${added} ${plural(added, 'word')} added, ${removed} removed${movedWords}`
    return `${versions}: ${changes}, ${who} ${sinceWords()}.`
  })
  return {
    a,
    b,
    newest,
    compared,
    authored,
    failed,
    playing,
    words,
    compare,
    choose,
    step,
    stop,
    play,
    toNewest,
  }
}
