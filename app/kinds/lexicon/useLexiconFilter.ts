import type { LexiconSettings } from '#core/kinds/lexicon/lexiconSettings'
import type { WholeContribution } from '#shared/contributing/thread'
import { entryPeriods, periodOf } from '~/composables/contributing/entryPeriods'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'

export type Term = WholeContribution & { term: NonNullable<WholeContribution['term']> }

const collator = new Intl.Collator('en', { sensitivity: 'base' })
const plain = (html: string | null) => (html ?? '').replace(/<[^>]+>/g, ' ').toLowerCase()
const isTerm = (c: WholeContribution): c is Term => c.type === 'term' && c.term !== null

/** The letter a term stands under: its first without accents, or '#'. */
export const initialOf = (t: Term) =>
  /^\p{L}/u.test(t.term.term) ? t.term.term.normalize('NFD')[0]!.toUpperCase() : '#'

/** The terms of a lexicon, narrowed by words, letter, category, author and time, in order. */
export function useLexiconFilter(settings: () => LexiconSettings) {
  const store = useThreadStore()
  const seminar = useSeminarStore()
  const words = ref('')
  const letter = ref<string | null>(null)
  const category = ref<string | null>(null)
  const author = ref<string | null>(null)
  const period = ref<string | null>(null)
  const order = ref<'letters' | 'newest'>('letters')

  const all = computed(() =>
    store.whole
      .filter(isTerm)
      .filter(c => !c.withdrawn || c.author.isMe)
      .sort((a, b) => collator.compare(a.term.term, b.term.term) || a.shownAt.localeCompare(b.shownAt)),
  )
  const letters = computed(() => {
    const has = new Set(all.value.map(initialOf))
    const others = [...has].filter(l => !/^[A-Z]$/.test(l))
    return [
      ...[...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'].map(l => ({ l, has: has.has(l) })),
      ...others.map(l => ({ l, has: true })),
    ]
  })
  const count = <K>(keyOf: (t: Term) => K) =>
    all.value.reduce((map, t) => map.set(keyOf(t), (map.get(keyOf(t)) ?? 0) + 1), new Map<K, number>())
  const categories = computed(() => {
    const n = count(t => t.term.category ?? '')
    const without = n.get('')
    return [
      ...settings().categories.map(c => ({ id: c, label: c, count: n.get(c) ?? 0 })),
      ...(without ? [{ id: '', label: 'no category', count: without }] : []),
    ]
  })
  const authors = computed(() =>
    [...count(t => t.author.id)]
      .map(([id, n]) => {
        const a = all.value.find(t => t.author.id === id)!.author
        return { id, count: n, label: a.isMe ? 'You' : a.name }
      })
      .sort((a, b) => b.count - a.count || collator.compare(a.label, b.label)),
  )
  const periods = computed(() =>
    seminar.shell ? entryPeriods(seminar.shell, store.activity!.talk.indexBy) : [],
  )
  const periodKey = (t: Term) => periodOf(periods.value, t.shownAt)?.key
  const added = computed(() => {
    const n = count(periodKey)
    return periods.value
      .map(p => ({ id: p.key, label: p.label, count: n.get(p.key) ?? 0 }))
      .filter(p => p.count > 0)
  })
  const holds = (t: Term, q: string) =>
    [t.term.term, ...t.term.forms].some(f => f.toLowerCase().includes(q)) || plain(t.html).includes(q)
  const found = computed(() => {
    const q = words.value.trim().toLowerCase()
    const list = all.value.filter(
      t =>
        (!letter.value || initialOf(t) === letter.value) &&
        (category.value === null || (t.term.category ?? '') === category.value) &&
        (!author.value || t.author.id === author.value) &&
        (!period.value || periodKey(t) === period.value) &&
        (!q || holds(t, q)),
    )
    return order.value === 'newest' ? [...list].sort((a, b) => b.shownAt.localeCompare(a.shownAt)) : list
  })
  const narrowed = computed(
    () => words.value !== '' || [letter, category, author, period].some(chosen => chosen.value !== null),
  )
  function everything() {
    words.value = ''
    for (const chosen of [letter, category, author, period]) chosen.value = null
  }
  return {
    words,
    letter,
    category,
    author,
    period,
    order,
    all,
    letters,
    categories,
    authors,
    added,
    found,
    narrowed,
    everything,
  }
}
export type LexiconFilter = ReturnType<typeof useLexiconFilter>
