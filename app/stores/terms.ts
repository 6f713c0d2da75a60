import { defineStore } from 'pinia'
import { readOnlyState } from './readOnlyState'
import { linkTerms } from '#core/kinds/lexicon/linkTerms'
import { asHtml, linkTexts } from '#core/kinds/lexicon/linkTexts'
import { TermFinder } from '#core/kinds/lexicon/termFinder'
import type { TermCard, TermsView } from '#shared/kinds/lexicon/lexicon'
import { useApi } from '../composables/shell/useApi'
import * as lexiconEndpoints from '#shared/kinds/lexicon/endpoints'

/** The seminar's own terms, made links in every text as it is shown. */
export const useTermsStore = readOnlyState(
  defineStore('terms', () => {
    const api = useApi() // taken here once: after an await there is no request to bind it to
    const seminarId = ref<string | null>(null)
    const view = shallowRef<TermsView | null>(null)
    const cards = shallowReactive(new Map<string, TermCard>())
    const finder = computed(() =>
      view.value && view.value.terms.length > 0 ? new TermFinder(view.value.terms) : null,
    )
    const homeOf = computed(() => new Map(view.value?.terms.map(t => [t.id, t.activityId])))

    /** Fetched once a page stands: texts are read before their terms light up. */
    async function load(id: string) {
      if (seminarId.value !== id) {
        view.value = null
        cards.clear()
      }
      seminarId.value = id
      view.value = await api.call(lexiconEndpoints.readTerms, { params: { seminarId: id } })
    }
    const addressOf = (id: string) =>
      `/seminars/${seminarId.value}/activities/${homeOf.value.get(id)}#c-${id}`
    /** A text with its terms as links; as it is while they are not here. `except`: the term it defines. */
    function link(html: string, except?: string): string {
      return finder.value
        ? linkTerms(html, finder.value, addressOf, except ? new Set([except]) : undefined)
        : html
    }
    /** Lines of plain text as HTML, with terms as links; as they are while terms are not here. */
    const linkLines = (texts: readonly string[]): string[] =>
      finder.value ? linkTexts(texts, finder.value, addressOf) : texts.map(asHtml)
    async function card(id: string): Promise<TermCard> {
      const known = cards.get(id)
      if (known) return known
      const fetched = await api.call(lexiconEndpoints.readTerm, {
        params: { seminarId: seminarId.value!, termId: id },
      })
      cards.set(id, fetched)
      return fetched
    }
    return { view, load, link, linkLines, card, cards, addressOf }
  }),
)
