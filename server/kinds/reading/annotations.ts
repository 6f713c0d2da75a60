import { and, eq } from 'drizzle-orm'
import { Parser } from 'htmlparser2'
import { v5 } from 'uuid'
import { BlockText } from '#core/kinds/reading/blockText'
import { readingOf } from '#core/kinds/reading/reading'
import { paragraphs } from '#core/contributing/richText'
import {
  readAnnotation,
  toAnnotation,
  type NoteFault,
  type PortableNote,
} from '#core/kinds/reading/webAnnotation'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { contributions } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { ownAddress } from '#server/mail/mailServer'
import type { AnnotationsTake } from '#shared/kinds/reading/reading'
import { NoteDetail } from '#shared/kinds/reading/reading'
import type { WholeContribution } from '#shared/contributing/thread'
import { postContribution, shapedThread } from '#server/services/contributing'
import { currentVersion } from './library'

const MOST = 10_000 // annotations of one file
export const PAGE = 200 // annotations on one page of a collection
const CONTEXT = ['http://www.w3.org/ns/anno.jsonld', 'http://www.w3.org/ns/ldp.jsonld']

export const containerOf = (activityId: string): string => `${ownAddress()}/annotations/${activityId}/`
const iriOf = (activityId: string, id: string): string => `${containerOf(activityId)}${id}`
const textIri = (textId: string): string => `${ownAddress()}/texts/${textId}`

/** The notes and replies of a reading as its reader gets them, in the order they came, as they travel. */
export async function portableNotes(
  db: Db,
  actor: ActivityActor,
  of: 'all' | 'mine',
  now: Date,
): Promise<PortableNote[]> {
  const { textId } = readingOf(actor.activity.settings)
  const current = textId ? await currentVersion(db, textId) : null
  if (actor.activity.kind !== 'reading' || !current) throw nothingHere()
  const { contributions: views } = await shapedThread(db, actor, now)
  const isPaper = current.text.form === 'paper'
  return views.flatMap(c =>
    c.view === 'whole' && c.state === 'shown' && (of === 'all' || c.author.isMe) ? [portable(c)] : [],
  )

  function portable(c: WholeContribution): PortableNote {
    const { note } = c
    const exact = note?.at ? current!.version.words.slice(note.at.start, note.at.end) : null
    // where it stands now is what others' programs find it by; one that is lost keeps the words it was written to
    const findPassage = () => {
      if (note?.passage)
        return note.at && exact
          ? {
              ...note.passage,
              ...note.at,
              ...(exact !== note.passage.exact && {
                exact,
                prefix: current!.version.words.slice(Math.max(0, note.at.start - 48), note.at.start),
                suffix: current!.version.words.slice(note.at.end, note.at.end + 48),
              }),
            }
          : note.passage
      return null
    }
    const passage = findPassage()
    return {
      id: iriOf(actor.activity.id, c.id),
      kind: note?.kind ?? 'reply',
      html: c.html ?? '',
      tags: note?.tags ?? [],
      author: { id: `urn:uuid:${c.author.id}`, name: c.author.name },
      at: c.shownAt,
      changedAt: c.editedAt,
      source: c.parentId ? iriOf(actor.activity.id, c.parentId) : textIri(current!.text.id),
      passage,
      page: isPaper && note ? note.part : null,
      time: note?.time ?? null,
      area: note?.area ?? null,
      leadsTo: note?.to ? note.to.passage.exact : null,
    }
  }
}

/** The whole of it as one collection in a file (W3C Web Annotation Data Model, Annotation Collection). */
export function collectionOf(
  activityId: string,
  title: string,
  notes: readonly PortableNote[],
): Record<string, unknown> {
  const id = containerOf(activityId)
  return {
    '@context': CONTEXT[0],
    id,
    type: 'AnnotationCollection',
    label: title,
    total: notes.length,
    first: {
      id: `${id}?page=0`,
      type: 'AnnotationPage',
      startIndex: 0,
      items: notes.map(n => withoutContext(toAnnotation(n))),
    },
  }
}

/** A container, or a page of it, as the Web Annotation Protocol (W3C, 23 February 2017) serves it. */
export function containerPage(
  activityId: string,
  title: string,
  notes: readonly PortableNote[],
  page: number | null,
): Record<string, unknown> | null {
  const id = containerOf(activityId)
  const last = Math.max(0, Math.ceil(notes.length / PAGE) - 1)
  const pageOf = (n: number) => ({
    id: `${id}?page=${n}`,
    type: 'AnnotationPage',
    startIndex: n * PAGE,
    partOf: id,
    ...(n > 0 && { prev: `${id}?page=${n - 1}` }),
    ...(n < last && { next: `${id}?page=${n + 1}` }),
    items: notes.slice(n * PAGE, (n + 1) * PAGE).map(a => withoutContext(toAnnotation(a))),
  })
  if (page !== null) return page > last ? null : { '@context': CONTEXT[0], ...pageOf(page) }
  return {
    '@context': CONTEXT,
    id,
    type: ['BasicContainer', 'AnnotationCollection'],
    label: title,
    total: notes.length,
    first: notes.length > 0 ? pageOf(0) : undefined,
    last: notes.length > 0 ? `${id}?page=${last}` : undefined,
  }
}
const withoutContext = ({ '@context': _, ...annotation }: Record<string, unknown>): Record<string, unknown> =>
  annotation

/**
 * Takes annotations in from any program that keeps to the standard, as the taker's own notes: what stands in the text is
 * placed, replies follow what they answer, each that is left out says why. All come in together or none does.
 */
export async function takeAnnotations(db: Database, actor: ActivityActor, write: AnnotationsTake, now: Date) {
  let json: unknown
  try {
    json = JSON.parse(write.json)
  } catch {
    throw refusedField(
      'json',
      'notJson',
      'This file is no JSON, so it holds no annotations that can be read. Nothing was changed.',
    )
  }
  const items = itemsOf(json)
  if (items.length === 0)
    throw refusedField(
      'json',
      'noAnnotations',
      'There is not an annotation in this file. Nothing was changed.',
    )
  if (items.length > MOST)
    throw refusedField(
      'json',
      'tooMany',
      `This file has ${items.length.toLocaleString('en')} annotations; ${MOST.toLocaleString('en')} come in at once. Divide it.`,
    )
  const refused: Array<{ id: string | null; why: string }> = []
  const read = items.flatMap(item => {
    const one = readAnnotation(item)
    if (one.kind !== 'read') refused.push({ id: one.fault.id, why: WHY[one.fault.code] })
    else if (mayTake(actor, one.note)) return [one.note]
    else refused.push({ id: one.note.id, why: 'somebody else wrote it' })
    return []
  })
  const ids = new Set(read.map(n => n.id).filter(Boolean))
  const own = containerOf(actor.activity.id)
  const isReply = (n: PortableNote) => ids.has(n.source) || n.source.startsWith(own)
  let notes = 0
  let replies = 0
  return db
    .transaction(async tx => {
      const idByNote = new Map<string, string>()
      const there = new Set(
        (
          await tx
            .select({ id: contributions.id })
            .from(contributions)
            .where(eq(contributions.activityId, actor.activity.id))
        ).map(r => r.id),
      )
      // answers after what they answer, however they stand in the file
      const waiting = [...read]
      for (let again = true; again;) {
        again = false
        for (const note of waiting.splice(0)) {
          const localId = note.id.startsWith(own) ? note.id.slice(own.length) : null
          if (localId && there.has(localId)) {
            idByNote.set(note.id, localId)
            refused.push({ id: note.id, why: 'it is here already' })
            again = true
            continue
          }
          const parentId = isReply(note)
            ? (idByNote.get(note.source) ??
              (note.source.startsWith(own) && there.has(note.source.slice(own.length))
                ? note.source.slice(own.length)
                : null))
            : null
          if (isReply(note) && !parentId) {
            waiting.push(note)
            continue
          }
          const id = await post(tx as Database, note, parentId)
          if (!id) continue
          if (note.id) idByNote.set(note.id, id)
          if (parentId) replies++
          else notes++
          again = true
        }
        if (waiting.length === 0) break
      }
      for (const note of waiting) refused.push({ id: note.id, why: 'what it answers is not here' })
      const answer = { notes, replies, refused }
      if (write.trial) throw new Tried(answer)
      return answer
    })
    .catch((problem: unknown) => {
      if (problem instanceof Tried) return problem.answer
      throw problem
    })

  async function post(tx: Database, note: PortableNote, parentId: string | null): Promise<string | null> {
    const detail = parentId
      ? null
      : NoteDetail.safeParse({
          kind: note.kind === 'question' ? 'question' : 'note',
          part: note.page ?? 1,
          passage: note.passage && clipped(note.passage),
          area: note.area,
          time: note.passage ? null : note.time,
          tags: note.tags.slice(0, 8).map(t => t.slice(0, 40)),
          to: null,
        })
    if (detail && !detail.success) {
      refused.push({ id: note.id, why: WHY.noPassage })
      return null
    }
    const said = [
      plainWords(note.html),
      ...(note.author?.name && !note.author.id.endsWith(actor.enrolment.id) ? [`(${note.author.name})`] : []),
    ]
      .filter(Boolean)
      .join('\n')
    try {
      // a place of its own in the transaction: what is refused leaves nothing behind and the rest goes on
      return (
        await tx.transaction(inner =>
          postContribution(
            inner as unknown as Database,
            actor,
            {
              key: v5(note.id || JSON.stringify([note.source, note.passage, note.html]), write.key),
              parentId,
              slot: '',
              promptId: null,
              title: null,
              fileIds: [],
              takesUp: null,
              showAt: null,
              term: null,
              note: detail?.data ?? null,
              doc: paragraphs(said === '' ? note.tags.join(', ') : said) as never,
            },
            now,
            { isImported: true },
          ),
        )
      ).id
    } catch (problem) {
      if (!(problem instanceof Problem)) throw problem
      refused.push({
        id: note.id,
        why:
          problem.code === 'passageGone' || problem.code === 'missing'
            ? 'its passage is not in this text'
            : problem.message,
      })
      return null
    }
  }
}
class Tried<T> extends Error {
  constructor(readonly answer: T) {
    super('tried')
  }
}

/** Annotations of a collection, a page, a list, or one alone. */
function itemsOf(json: unknown): unknown[] {
  if (Array.isArray(json)) return json
  if (typeof json !== 'object' || json === null) return []
  const object = json as Record<string, unknown>
  if (Array.isArray(object.items)) return object.items
  if (object.first !== undefined) return itemsOf(object.first)
  return object.body !== undefined || object.target !== undefined || object.type === 'Annotation'
    ? [object]
    : []
}
const clipped = (p: { exact: string; prefix: string; suffix: string; start: number; end: number }) => ({
  ...p,
  exact: p.exact.slice(0, 4000),
  prefix: p.prefix.slice(-64),
  suffix: p.suffix.slice(0, 64),
  start: Math.min(p.start, 5_000_000),
  end: Math.min(p.end, 5_000_000),
})
const WHY: Readonly<Record<NoteFault['code'], string>> = {
  notAnAnnotation: 'this is no annotation',
  noBody: 'it says nothing',
  noTarget: 'it is about nothing',
  noPassage: 'it names no passage by its words',
}

function plainWords(html: string): string {
  const text = new BlockText()
  const parser = new Parser({
    onopentagname: tag => text.edge(tag),
    ontext: words => {
      text.put(words)
    },
    onclosetag: tag => text.edge(tag),
  })
  parser.end(html)
  return text.source
    .split('\n')
    .map(line => line.trim())
    .filter(Boolean)
    .join('\n')
}

/** Students take in what is their own, by what it says of its author, or what names nobody; staff what they set before their class. */
function mayTake({ enrolment, person }: ActivityActor, { author }: PortableNote): boolean {
  if (isStaff(enrolment) || !author) return true
  const names = [author.name, author.id.replace(/^(?:urn:uuid|mailto):/, '')]
  return [enrolment.id, person.id, person.name].some(own => names.includes(own))
}

/** One note or reply, to somebody who may read it. */
export async function portableNote(
  db: Db,
  actor: ActivityActor,
  id: string,
  now: Date,
): Promise<PortableNote | null> {
  return (await portableNotes(db, actor, 'all', now)).find(n => n.id === iriOf(actor.activity.id, id)) ?? null
}
export async function ownNoteRow(db: Db, actor: ActivityActor, id: string) {
  const [row] = await db
    .select()
    .from(contributions)
    .where(
      and(
        eq(contributions.id, id),
        eq(contributions.activityId, actor.activity.id),
        eq(contributions.authorId, actor.enrolment.id),
      ),
    )
  return row ?? null
}
