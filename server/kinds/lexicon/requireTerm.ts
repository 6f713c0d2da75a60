import { detailOf, type ContributionDetails } from '#core/kinds/contributionDetail'
import { and, eq, inArray } from 'drizzle-orm'
import { lexiconOf, type TermDetail } from '#core/kinds/lexicon/lexiconSettings'
import { definedAs } from '#core/kinds/lexicon/definedAs'
import { sameTerm } from '#core/kinds/lexicon/termFinder'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { lock } from '#server/database/locks'
import { contributions } from '#server/database/schema'
import { refusedField } from '#server/http/problem'

/**
 * What a contribution to a lexicon needs to be shown: a term, and one that is not there yet, where the lexicon keeps each
 * once. Until the transaction ends nobody else adds to it, so that two at once do not both come in.
 */
export async function requireTerm(
  tx: Db,
  { activity }: { readonly activity: ActivityRow },
  term: TermDetail | null,
  own: string | null,
): Promise<ContributionDetails['term']> {
  if (!term || term.term === '')
    throw refusedField('term', 'noTerm', 'Say which term it is. Your text is kept here.')
  const settings = lexiconOf(activity.settings)
  if (term.category !== null && !settings.categories.includes(term.category))
    throw refusedField(
      'category',
      'noCategory',
      'This category is not there any more. Choose another; your text is kept here.',
    )
  if (settings.duplicates === 'refused') {
    await lock(tx, 'terms', activity.id)
    const there = await knownTerms(tx, activity.id)
    const known = definedAs(term.term, there, own)
    if (known) {
      const isForm = sameTerm(known.term) !== sameTerm(term.term)
      const whichIs = isForm
        ? `“${term.term}” is a form of “${known.term}”, which is in the lexicon already`
        : `“${term.term}” is in the lexicon already`
      throw refusedField(
        'term',
        'thereAlready',
        `${whichIs}, or waits to be shown. Add to it in a comment, or choose another term; your text is kept here.`,
      )
    }
  }
  const forms = [
    ...new Map(
      term.forms.filter(f => sameTerm(f) !== sameTerm(term.term)).map(f => [sameTerm(f), f]),
    ).values(),
  ]
  return { term: { ...term, forms }, title: term.term }
}

/** Terms that are shown or wait to be, with their ids and other forms. */
export async function knownTerms(
  db: Db,
  activityId: string,
): Promise<Array<{ id: string; term: string; forms: readonly string[] }>> {
  const rows = await db
    .select({ id: contributions.id, type: contributions.type, detail: contributions.detail })
    .from(contributions)
    .where(
      and(
        eq(contributions.activityId, activityId),
        eq(contributions.type, 'term'),
        inArray(contributions.state, ['shown', 'awaitingApproval']),
      ),
    )
  return rows.flatMap(row => {
    const { term } = detailOf(row, 'term')
    return term ? [{ id: row.id, term: term.term, forms: term.forms }] : []
  })
}
