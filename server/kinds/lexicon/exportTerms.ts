import { escapeHTML } from '@tiptap/static-renderer/json/html-string'
import { stringify } from 'csv-stringify/sync'
import { inArray } from 'drizzle-orm'
import { TERM_COLUMNS } from '#core/kinds/lexicon/readTermsCsv'
import { localDay } from '#core/planning/week'
import { safeCell } from '#core/marking/results/safeCell'
import { nothingHere, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions } from '#server/database/schema'
import type { Served } from '#server/http/sendFile'
import { shapedThread } from '#server/services/contributing'
import { exportPage } from '#server/richText/exportPage'
import type { WholeContribution } from '#shared/contributing/thread'

type Term = WholeContribution & { readonly term: NonNullable<WholeContribution['term']> }

/** A lexicon as a file, as its reader gets it on the page: terms that are shown, in their order of letters. */
export async function exportTerms(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  form: 'csv' | 'json' | 'html',
  now: Date,
): Promise<Served> {
  const { activity } = actor
  if (activity.kind !== 'lexicon') throw nothingHere()
  const { contributions: views } = await shapedThread(db, actor, now)
  const order = new Intl.Collator('en')
  const terms = views
    .filter((c): c is Term => c.view === 'whole' && c.state === 'shown' && c.term !== null)
    .sort((a, b) => order.compare(a.term.term, b.term.term))
  const plain = new Map(
    terms.length > 0
      ? (
          await db
            .select({ id: contributions.id, text: contributions.text })
            .from(contributions)
            .where(
              inArray(
                contributions.id,
                terms.map(t => t.id),
              ),
            )
        ).map(r => [r.id, r.text])
      : [],
  )
  const name = activity.title.replace(/[^\p{L}\p{N}]+/gu, ' ').trim() || 'Lexicon'
  switch (form) {
    case 'csv':
      return {
        name: `${name}.csv`,
        type: 'text/csv; charset=utf-8',
        bytes: Buffer.from(
          `\ufeff${stringify(
            terms.map(({ id, term: t, author, shownAt }) =>
              [
                t.term,
                plain.get(id)!,
                t.forms.join(' | '),
                t.category ?? '',
                t.sources,
                t.whole ? 'no' : 'yes',
                author.name,
                localDay(new Date(shownAt), actor.seminar.timeZone),
              ].map(safeCell),
            ),
            { header: true, columns: [...TERM_COLUMNS, 'author', 'shown on'] },
          )}`,
        ),
      }
    case 'json':
      return {
        name: `${name}.json`,
        type: 'application/json',
        bytes: Buffer.from(
          JSON.stringify(
            {
              title: activity.title,
              takenAt: now.toISOString(),
              terms: terms.map(t => ({
                id: t.id,
                ...t.term,
                definition: plain.get(t.id),
                html: t.html,
                author: t.author.name,
                shownAt: t.shownAt,
              })),
            },
            null,
            2,
          ),
        ),
      }
    case 'html':
      return {
        name: `${name}.html`,
        type: 'text/html; charset=utf-8',
        bytes: Buffer.from(dictionary(activity.title, terms)),
      }
  }
}

const STYLE = `
body {
  font: 17px/1.55 Georgia,serif;
  max-width: 44rem;
  margin: 2rem auto;
  padding: 0 1rem;
  color: #22201c;
}
dt {
  font-weight: 700;
  margin-top: 1.2rem;
}
dd {
  margin: 0;
}
.by {
  font: 14px/1.4 sans-serif;
  color: #6b665c;
}
`
const dictionary = (title: string, terms: readonly Term[]) =>
  exportPage(
    title,
    STYLE,
    `<h1>${escapeHTML(title)}</h1>\n<dl>${terms.map(t => termHtml(t)).join('\n')}</dl>`,
  )

function termHtml({ id, term: t, html, author }: Term) {
  const forms = t.forms.length > 0 ? `<p class="by">also ${escapeHTML(t.forms.join(', '))}</p>` : ''
  const by = [t.category, author.name, t.sources].filter(Boolean).join('; ')
  return `<dt id="${id}">${escapeHTML(t.term)}</dt><dd>${forms}${html ?? ''}<p class="by">${escapeHTML(by)}</p></dd>`
}
