import { titleKey } from '#core/kinds/wiki/wikiSettings'
import { useWikiStore } from '~/stores/wiki'
import type { LinkChoice } from './pageNodes'

const MOST = 8 // titles offered at once
const withoutBrackets = (words: string) => words.replace(/\]+$/, '').trim()

/** The pages one may link to while a link is typed: those that are there, those that are wanted, and the typed one itself. */
export function usePageLinks(pageId: string) {
  const store = useWikiStore()
  const choice = shallowRef<LinkChoice | null>(null)
  const picked = ref(0)
  const titles = computed(() => {
    if (!choice.value) return []
    const own = withoutBrackets(choice.value.words)
    const q = titleKey(own)
    const isIn = (title: string, list: readonly string[]) => list.some(t => titleKey(t) === titleKey(title))
    const there = (store.view?.pages ?? [])
      .filter(p => p.id !== pageId && titleKey(p.title).includes(q))
      .map(p => p.title)
    const wanted = [...(store.view?.suggested ?? []), ...(store.view?.wanted.map(w => w.title) ?? [])].filter(
      t => titleKey(t).includes(q) && !isIn(t, there),
    )
    const isNew = own !== '' && !isIn(own, [...there, ...wanted])
    return [
      ...there.map(title => ({ title, note: '' })),
      ...wanted.map(title => ({ title, note: 'wanted' })),
      ...(isNew ? [{ title: own, note: 'a page that is not there yet' }] : []),
    ].slice(0, MOST)
  })
  function choose(next: LinkChoice | null) {
    // closing brackets finish the link as they would on paper
    const finished = next && /\]\]$/.test(next.words) ? withoutBrackets(next.words) : ''
    choice.value = finished ? null : next
    if (finished) next?.take(store.pageOf(finished)?.title ?? finished)
    else picked.value = 0
  }
  /** Whether the key was for the list of titles. */
  function key(event: KeyboardEvent): boolean {
    const count = titles.value.length
    if (!choice.value || count === 0) return false
    switch (event.key) {
      case 'ArrowDown':
        picked.value = (picked.value + 1) % count
        return true
      case 'ArrowUp':
        picked.value = (picked.value + count - 1) % count
        return true
      case 'Enter':
      case 'Tab':
        choice.value.take(titles.value[picked.value]!.title)
        return true
      case 'Escape':
        choice.value = null
        return true
      default:
        return false
    }
  }
  return { choice, picked, titles, choose, key }
}
