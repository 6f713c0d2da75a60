import type { TextAnchor } from './anchor'
import type { PageArea } from './reading'

export const NOTE_MOTIVES = {
  note: 'commenting',
  question: 'questioning',
  reply: 'replying',
  link: 'linking',
} as const
export type NoteKind = keyof typeof NOTE_MOTIVES

/** A note as it travels: what it says, of which passage of which text, and whom it answers. */
export interface PortableNote {
  readonly id: string // an IRI
  readonly kind: NoteKind
  readonly html: string
  readonly tags: readonly string[]
  readonly author: { readonly id: string; readonly name: string } | null
  readonly at: string // ISO 8601
  readonly changedAt: string | null
  readonly source: string // IRI of the text, or of the note it answers
  readonly passage: TextAnchor | null // null: the whole text
  readonly page: number | null // of a paper, from 1
  readonly time: readonly [from: number, to: number] | null // of a recording, seconds
  readonly area: PageArea | null // on a page without words
  readonly leadsTo: string | null // of a link: the words it leads to
}

const CONTEXT = 'http://www.w3.org/ns/anno.jsonld'
const PDF_FRAGMENTS = 'http://tools.ietf.org/rfc/rfc3778'
const MEDIA_FRAGMENTS = 'http://www.w3.org/TR/media-frags/'

/** A note as the open standard has it (W3C Web Annotation Data Model, 23 February 2017): one annotation in JSON-LD. */
export function toAnnotation(note: PortableNote): Record<string, unknown> {
  const selectors = selectorsOf(note)
  return {
    '@context': CONTEXT,
    id: note.id,
    type: 'Annotation',
    motivation: NOTE_MOTIVES[note.kind],
    created: note.at,
    ...(note.changedAt && { modified: note.changedAt }),
    ...(note.author && { creator: { id: note.author.id, type: 'Person', name: note.author.name } }),
    body: [
      { type: 'TextualBody', value: note.html, format: 'text/html', purpose: NOTE_MOTIVES[note.kind] },
      ...(note.leadsTo !== null
        ? [{ type: 'TextualBody', value: note.leadsTo, format: 'text/plain', purpose: 'linking' }]
        : []),
      ...note.tags.map(value => ({ type: 'TextualBody', value, format: 'text/plain', purpose: 'tagging' })),
    ],
    target:
      selectors.length === 0
        ? note.source
        : { source: note.source, selector: selectors.length === 1 ? selectors[0] : selectors },
  }
}

/**
 * An area stands with its page, in hundredths of its width and height (viewrect counts points, which differ
 * from page to page; `xywh=percent:` is of Media Fragments).
 */
function selectorsOf({ passage, page, time, area }: PortableNote): Array<Record<string, unknown>> {
  const percent = (n: number) => Math.round(n * 10_000) / 100
  return [
    ...(page !== null
      ? [
          {
            type: 'FragmentSelector',
            conformsTo: PDF_FRAGMENTS,
            value: `page=${page}`,
            ...(area && {
              refinedBy: {
                type: 'FragmentSelector',
                conformsTo: MEDIA_FRAGMENTS,
                value: `xywh=percent:${[area.x, area.y, area.width, area.height].map(percent).join(',')}`,
              },
            }),
          },
        ]
      : []),
    ...(time
      ? [{ type: 'FragmentSelector', conformsTo: MEDIA_FRAGMENTS, value: `t=${time[0]},${time[1]}` }]
      : []),
    ...(passage
      ? [
          { type: 'TextQuoteSelector', exact: passage.exact, prefix: passage.prefix, suffix: passage.suffix },
          { type: 'TextPositionSelector', start: passage.start, end: passage.end },
        ]
      : []),
  ]
}

export type NoteFault = {
  readonly code: 'notAnAnnotation' | 'noBody' | 'noTarget' | 'noPassage'
  readonly id: string | null
}
export type ReadNote =
  | { readonly kind: 'read'; readonly note: PortableNote }
  | { readonly kind: 'refused'; readonly fault: NoteFault }

/**
 * A note out of an annotation, from any program that keeps to the standard: bodies and targets alone or in lists, plain
 * text or HTML, selectors in any order or refined by one another. What is not understood is left; what is needed and
 * missing is refused with its name. Nothing of it is trusted: its HTML is the sanitiser's to clean.
 */
export function readAnnotation(json: unknown): ReadNote {
  const a = objectOf(json)
  const id = textOf(a?.id ?? a?.['@id'])
  const refuse = (code: NoteFault['code']): ReadNote => ({ kind: 'refused', fault: { code, id } })
  if (!a || !listOf(a.type ?? a['@type']).some(t => t === 'Annotation' || t === 'oa:Annotation'))
    return refuse('notAnAnnotation')
  const bodies = listOf(a.body ?? a.bodyValue)
    .map(b => (typeof b === 'string' ? { type: 'TextualBody', value: b } : objectOf(b)))
    .filter(b => b !== null)
  const texts = bodies.filter(b => textOf(b.value) !== null)
  const tags = texts
    .filter(b => listOf(b.purpose).includes('tagging'))
    .map(b => textOf(b.value)!.trim())
    .filter(Boolean)
  const leads = texts.find(b => listOf(b.purpose).includes('linking') && b.format !== 'text/html')
  const said = texts
    .filter(b => b !== leads && !listOf(b.purpose).includes('tagging'))
    .map(b => (b.format === 'text/html' ? textOf(b.value)! : paragraphOf(textOf(b.value)!)))
    .join('')
  if (said === '' && tags.length === 0) return refuse('noBody')
  const [target] = listOf(a.target)
  const source =
    textOf(target) ??
    textOf(objectOf(target)?.source) ??
    textOf(objectOf(objectOf(target)?.source)?.id) ??
    textOf(objectOf(target)?.id)
  if (source === null) return refuse('noTarget')
  const selectors = flat(objectOf(target)?.selector)
  const passage = passageOf(selectors)
  if (passage === 'empty') return refuse('noPassage')
  const motives = listOf(a.motivation)
  const kind =
    (Object.keys(NOTE_MOTIVES) as NoteKind[]).find(k =>
      motives.some(m => m === NOTE_MOTIVES[k] || m === `oa:${NOTE_MOTIVES[k]}`),
    ) ?? 'note'
  const author = objectOf(listOf(a.creator)[0])
  return {
    kind: 'read',
    note: {
      id: id ?? '',
      kind,
      html: said,
      tags,
      at: dateOf(a.created) ?? '',
      changedAt: dateOf(a.modified),
      source,
      passage,
      author: author
        ? { id: textOf(author.id) ?? '', name: textOf(author.name) ?? textOf(author.nickname) ?? '' }
        : null,
      page: pageOf(selectors),
      time: timeOf(selectors),
      area: areaOf(selectors),
      leadsTo: leads ? textOf(leads.value) : null,
    },
  }
}

type Json = Readonly<Record<string, unknown>>
const objectOf = (x: unknown): Json | null =>
  typeof x === 'object' && x !== null && !Array.isArray(x) ? (x as Json) : null
const textOf = (x: unknown): string | null => (typeof x === 'string' ? x : null)
const listOf = (x: unknown): readonly unknown[] => {
  if (x === undefined || x === null) return []
  if (Array.isArray(x)) return x
  return [x]
}
const dateOf = (x: unknown): string | null => {
  const at = typeof x === 'string' ? Date.parse(x) : Number.NaN
  return Number.isFinite(at) ? new Date(at).toISOString() : null
}
const paragraphOf = (text: string) =>
  `<p>${text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')}</p>`
const DEEPEST = 6 // selectors refined by one another

function flat(selector: unknown, depth = 0): Json[] {
  if (depth > DEEPEST) return []
  return listOf(selector).flatMap(s => {
    const one = objectOf(s)
    return one ? [one, ...flat(one.refinedBy, depth + 1)] : []
  })
}

function passageOf(selectors: readonly Json[]): TextAnchor | null | 'empty' {
  const quote = selectors.find(s => s.type === 'TextQuoteSelector')
  const position = selectors.find(s => s.type === 'TextPositionSelector')
  if (!quote) return position ? 'empty' : null // places alone lead nowhere once the text is another
  const exact = textOf(quote.exact) ?? ''
  if (exact === '') return 'empty'
  const number = (x: unknown) => (typeof x === 'number' && Number.isInteger(x) && x >= 0 ? x : null)
  const start = number(position?.start) ?? 0
  return {
    exact,
    prefix: textOf(quote.prefix) ?? '',
    suffix: textOf(quote.suffix) ?? '',
    start,
    end: number(position?.end) ?? start + exact.length,
  }
}

function pageOf(selectors: readonly Json[]): number | null {
  for (const s of selectors) {
    const page =
      s.type === 'FragmentSelector' ? /(?:^|&)page=(\d{1,6})(?:&|$)/.exec(textOf(s.value) ?? '') : null
    if (page && Number(page[1]) > 0) return Number(page[1])
  }
  return null
}

/** A time of a media fragment (normal play time, seconds): "t=10,20", "t=npt:10,20", "t=10". */
function timeOf(selectors: readonly Json[]): readonly [number, number] | null {
  for (const s of selectors) {
    const time =
      s.type === 'FragmentSelector'
        ? /(?:^|&)t=(?:npt:)?(\d+(?:\.\d+)?)?(?:,(\d+(?:\.\d+)?))?(?:&|$)/.exec(textOf(s.value) ?? '')
        : null
    if (!time || (time[1] === undefined && time[2] === undefined)) continue
    const from = Number(time[1] ?? 0)
    const to = time[2] === undefined ? from : Number(time[2])
    if (to >= from) return [from, to]
  }
  return null
}

/** An area of a page in hundredths: "xywh=percent:10,20,30,40". */
function areaOf(selectors: readonly Json[]): PageArea | null {
  for (const s of selectors) {
    const area =
      s.type === 'FragmentSelector'
        ? /(?:^|&)xywh=percent:([\d.]+),([\d.]+),([\d.]+),([\d.]+)(?:&|$)/.exec(textOf(s.value) ?? '')
        : null
    const [x, y, width, height] = area?.slice(1).map(n => Number(n) / 100) ?? []
    if (width && height && x! + width <= 1.0001 && y! + height <= 1.0001)
      return { x: x!, y: y!, width, height }
  }
  return null
}
