import { DomUtils, parseDocument } from 'htmlparser2'
import { useNitroApp } from 'nitropack/runtime'
import type { Actor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { Problem, refusedField } from '#server/http/problem'
import { withIdempotency } from '#server/services/idempotency'
import type { SupplierTake, SupplierView } from '#shared/kinds/reading/reading'
import { keepText } from './library'
import { NotABook, readBook, type Book } from './readBook'
import { layArticle } from './sections'

/** The catalogue of whoever lends books to the college; without an address the stand-in that ships with Jovrel. */
const STAND_IN = '/supplier/catalogue'
const catalogue = (): string => process.env.JOVREL_BOOK_SUPPLIER ?? STAND_IN
const PATIENCE = 15_000 // milliseconds
const LARGEST = 40_000_000 // bytes
const AWAY = () =>
  new Problem(
    502,
    'supplierAway',
    'The book supplier does not answer. Nothing was changed; try again in a while.',
  )

interface Entry {
  readonly id: string
  readonly title: string
  readonly author: string
  readonly summary: string
  readonly address: string
}

/** The supplier's books with their chapters and pages. */
export async function supplierBooks(): Promise<SupplierView> {
  const { title, entries } = await readCatalogue()
  const books = await Promise.all(
    entries.map(async ({ address, ...entry }) => {
      const { parts } = layArticle((await bookAt(address)).sections)
      return {
        ...entry,
        parts: parts.map(({ number, label, heading, words }) => ({ number, label, heading, words })),
      }
    }),
  )
  return { supplier: title, books }
}

/** Takes some pages of a book into the library; no more than was chosen is kept. */
export async function takeFromSupplier(db: Database, actor: Actor, take: SupplierTake, now: Date) {
  const entry = (await readCatalogue()).entries.find(e => e.id === take.bookId)
  if (!entry)
    throw refusedField('bookId', 'gone', 'The supplier does not have this book any more. Choose another.')
  const { sections } = await bookAt(entry.address)
  if (take.to > sections.length)
    throw refusedField('to', 'noPage', `This book has ${sections.length} pages here. Choose among them.`)
  const chosen = sections
    .slice(take.from - 1, take.to)
    .map((s, i) => ({ ...s, label: s.label ?? String(take.from + i) }))
  const laid = layArticle(chosen)
  const pages =
    chosen.length === 1 ? `page ${chosen[0]!.label}` : `pages ${chosen[0]!.label}–${chosen.at(-1)!.label}`
  return withIdempotency(db, actor.enrolment, take.key, tx =>
    keepText(
      tx,
      actor,
      {
        id: take.id,
        title: `${entry.title}, ${pages}`,
        credit: entry.author,
        supplier: { bookId: take.bookId, from: take.from, to: take.to },
      },
      {
        form: 'article',
        title: null,
        credit: null,
        language: null,
        ...laid,
        cues: [],
        keep: null,
        remarks: [],
      },
      { bytes: Buffer.alloc(0), name: '', transcript: null },
      now,
    ),
  )
}

async function readCatalogue(): Promise<{ title: string; entries: Entry[] }> {
  const xml = new TextDecoder().decode(await fetched(catalogue()))
  const feed = parseDocument(xml, { xmlMode: true })
  const within = (tag: string, node: Parameters<typeof DomUtils.textContent>[0]) => {
    const found = DomUtils.findOne(e => e.name === tag, [node].flat())
    return found ? DomUtils.textContent(found).trim() : ''
  }
  const entries = DomUtils.findAll(e => e.name === 'entry', feed.children).flatMap((entry): Entry[] => {
    const link = DomUtils.findOne(
      e =>
        e.name === 'link' &&
        e.attribs.rel?.startsWith('http://opds-spec.org/acquisition') === true &&
        e.attribs.type === 'application/epub+zip',
      entry.children,
    )
    const id = within('id', entry)
    return link?.attribs.href && id
      ? [
          {
            id,
            title: within('title', entry),
            author: within('name', entry),
            summary: within('summary', entry),
            address: resolved(link.attribs.href),
          },
        ]
      : []
  })
  return { title: within('title', feed.children) || 'The supplier', entries: entries.slice(0, 60) }
}

/** Where a book lies: beside its catalogue, and nowhere else. */
function resolved(href: string): string {
  const base = new URL(catalogue(), 'http://stand-in')
  const at = new URL(href, base)
  if (at.origin !== base.origin) throw AWAY()
  return base.hostname === 'stand-in' ? at.pathname : at.href
}

async function bookAt(address: string): Promise<Book> {
  try {
    return readBook(await fetched(address))
  } catch (error) {
    if (!(error instanceof NotABook)) throw error
    throw new Problem(
      502,
      'supplierBook',
      'The supplier sent a book that cannot be read. Nothing was changed; choose another, or tell the supplier.',
    )
  }
}

async function fetched(address: string): Promise<Uint8Array> {
  try {
    const answer = address.startsWith('/')
      ? await useNitroApp().localFetch(address, {})
      : await fetch(address, { signal: AbortSignal.timeout(PATIENCE), redirect: 'error' })
    const bytes = new Uint8Array(await answer.arrayBuffer())
    if (!answer.ok || bytes.length > LARGEST) throw AWAY()
    return bytes
  } catch (error) {
    throw error instanceof Problem ? error : AWAY()
  }
}
