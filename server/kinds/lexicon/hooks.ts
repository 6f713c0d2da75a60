import type { KindHooks } from '#server/services/contributing'
import { lexiconOf } from '#core/kinds/lexicon/lexiconSettings'
import type { ActivityView } from '#shared/contributing/activity'
import { requireTerm } from './requireTerm'

/** A lexicon: an entry is a term, with its definition as the text. */
export const lexicon: KindHooks = {
  entryDetail: async (db, actor, write, posting) => {
    if (posting) return requireTerm(db, actor, write.term ?? null, null)
    return write.term ? { term: write.term, title: write.term.term } : {}
  },
  changedDetail: async (db, actor, current, write) =>
    current.type === 'term' && write.term ? requireTerm(db, actor, write.term, current.id) : null,
  settingsFor: ({ settings }) => ({
    lexicon: structuredClone(lexiconOf(settings)) as ActivityView['lexicon'], // a copy of its own, to be changed by whoever asked
  }),
}
