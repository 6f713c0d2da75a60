import { eq } from 'drizzle-orm'
import { v5 } from 'uuid'
import { lexiconOf } from '#core/kinds/lexicon/lexiconSettings'
import { readTermsCsv, type TermFault } from '#core/kinds/lexicon/readTermsCsv'
import { sameTerm } from '#core/kinds/lexicon/termFinder'
import { paragraphs } from '#core/contributing/richText'
import { nothingHere, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { activities } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { postContribution } from '#server/services/contributing'
import { TermDetail } from '#shared/kinds/lexicon/term'
import type { LexiconImport } from '#shared/kinds/lexicon/lexicon'
import { knownTerms } from './requireTerm'

const MOST = 3000 // terms of one file

/**
 * Takes terms in from a table, or says what it would do. What is there already is left as it is, each row that is left out
 * says why; the rest comes in together or not at all. Categories that are new become the lexicon's.
 */
export async function importTerms(
  db: Database,
  actor: Actor & { readonly activity: ActivityRow },
  write: LexiconImport,
  now: Date,
) {
  const { activity } = actor
  if (activity.kind !== 'lexicon') throw nothingHere()
  const { terms, faults } = readTermsCsv(write.text)
  if (faults.some(f => f.code === 'noHeader'))
    throw refusedField(
      'text',
      'noHeader',
      'The first line names the columns; “term” and “definition” are needed. Nothing was changed.',
    )
  if (terms.length > MOST)
    throw refusedField(
      'text',
      'tooMany',
      `This file has ${terms.length.toLocaleString('en')} terms; up to ${MOST.toLocaleString('en')} come in at once. Divide it.`,
    )
  const settings = lexiconOf(activity.settings)
  const there = new Set((await knownTerms(db, activity.id)).flatMap(t => [t.term, ...t.forms].map(sameTerm)))
  const skipped = faults.flatMap(f =>
    f.code === 'noHeader' ? [] : [{ line: f.line, term: 'term' in f ? f.term : '', why: WHY[f.code] }],
  )
  const wanted = terms.flatMap(row => {
    const parsed = TermDetail.safeParse(row)
    const findWhy = () => {
      if (!parsed.success) return parsed.error.issues[0]!.message
      if (settings.duplicates === 'refused' && there.has(sameTerm(row.term))) return 'in the lexicon already'
      return null
    }
    const why = findWhy()
    if (why) skipped.push({ line: row.line, term: row.term, why })
    else for (const form of [row.term, ...row.forms]) there.add(sameTerm(form))
    return why || !parsed.success ? [] : [{ term: parsed.data, definition: row.definition, line: row.line }]
  })
  const answer = { added: wanted.map(w => w.term.term), skipped: skipped.sort((a, b) => a.line - b.line) }
  if (write.trial || wanted.length === 0) return answer
  return db.transaction(async tx => {
    const categories = [
      ...new Set([...settings.categories, ...wanted.flatMap(w => w.term.category ?? [])]),
    ].slice(0, 40)
    const [changed] = await tx
      .update(activities)
      .set({ settings: { ...activity.settings, lexicon: { ...settings, categories } } })
      .where(eq(activities.id, activity.id))
      .returning()
    for (const { term, definition, line } of wanted) {
      const known = term.category === null || categories.includes(term.category)
      await postContribution(
        tx as Database,
        { ...actor, activity: changed! },
        {
          key: v5(`${line}:${term.term}`, write.key),
          parentId: null,
          slot: `line ${line}`,
          promptId: null,
          title: null,
          fileIds: [],
          takesUp: null,
          showAt: null,
          note: null,
          term: { ...term, category: known ? term.category : null },
          doc: paragraphs(definition),
        },
        now,
      )
    }
    return answer
  })
}

const WHY: Readonly<Record<Exclude<TermFault['code'], 'noHeader'>, string>> = {
  row: 'this line could not be read',
  noTerm: 'no term',
  noDefinition: 'no definition',
}
