import { z } from 'zod'
import { AuthorView, PlaceView, ThreadHead, WholeView } from './thread'
import type { ContributionView, ThreadView, WholeContribution } from './thread'

/** Fields that are left out of the answer where they have the value that most contributions of a talk have. */
const Unusual = WholeView.omit({
  view: true,
  id: true,
  type: true,
  author: true,
  words: true,
  seq: true,
  shownAt: true,
  threadId: true,
  parentId: true,
}).partial()
type Unusual = z.infer<typeof Unusual>

/** A contribution without what it shares with most others: its author by number, usual values left out. */
const PackedWhole = WholeView.pick({
  view: true,
  id: true,
  type: true,
  words: true,
  seq: true,
  shownAt: true,
}).extend({
  by: z.number().int(), // place of its author in `authors`
  threadId: z.uuid().optional(), // left out of what begins a thread
  parentId: z.uuid().optional(), // as well
  more: Unusual.optional(), // left out of most
})
const PackedContribution = z.discriminatedUnion('view', [PackedWhole, PlaceView])
type PackedWhole = z.infer<typeof PackedWhole>
type PackedContribution = z.infer<typeof PackedContribution>

/** A talk as it is sent: each author once, and a long talk in a third of the bytes. */
export const PackedThread = ThreadHead.extend({
  authors: z.array(AuthorView),
  contributions: z.array(PackedContribution), // in the order they were shown
})
export type PackedThread = z.infer<typeof PackedThread>

/** @returns the same talk, for the way to its reader */
export function packThread({ contributions, ...head }: ThreadView): PackedThread {
  const authors: AuthorView[] = []
  const numberOf = new Map<string, number>()
  function by(author: AuthorView): number {
    const known = numberOf.get(author.id)
    // behind an alias one has another name in each thread, under an id of its own
    if (known !== undefined && authors[known]!.name === author.name) return known
    numberOf.set(author.id, authors.length)
    return authors.push(author) - 1
  }
  const pack = (view: ContributionView): PackedContribution =>
    view.view === 'whole'
      ? {
          view: 'whole',
          id: view.id,
          type: view.type,
          by: by(view.author),
          words: view.words,
          seq: view.seq,
          shownAt: view.shownAt,
          threadId: view.threadId === view.id ? undefined : view.threadId,
          parentId: view.parentId ?? undefined,
          more: unusualOf(view),
        }
      : view
  return { ...head, contributions: contributions.map(pack), authors }
}

/** Field by field: thousands are read at once, and what is spread into another takes ten times as long. */
const unpacked = (sent: PackedWhole, author: AuthorView, more = sent.more ?? NOTHING): WholeContribution => ({
  view: 'whole',
  id: sent.id,
  type: sent.type,
  author,
  words: sent.words,
  seq: sent.seq,
  shownAt: sent.shownAt,
  threadId: sent.threadId ?? sent.id,
  parentId: sent.parentId ?? null,
  state: more.state ?? 'shown',
  withdrawn: more.withdrawn ?? false,
  mayPutBack: more.mayPutBack ?? false,
  html: more.html ?? null,
  showAt: more.showAt ?? null,
  editedAt: more.editedAt ?? null,
  isNew: more.isNew ?? false,
  nods: more.nods ?? 0,
  nodded: more.nodded ?? false,
  takesUp: more.takesUp ?? null,
  changeUntil: more.changeUntil ?? null,
  withdrawUntil: more.withdrawUntil ?? null,
  onTop: more.onTop ?? false,
  openToClass: more.openToClass ?? false,
  promptId: more.promptId ?? null,
  title: more.title ?? null,
  term: more.term ?? null,
  note: more.note ?? null,
  files: more.files ?? [],
  circle: more.circle ?? null,
  alias: more.alias ?? null,
  done: more.done ?? null,
  points: more.points ?? null,
  sentBack: more.sentBack ?? null,
  version: more.version ?? 1,
})

const NOTHING: Unusual = {}
const ORDINARY = unpacked(
  { view: 'whole', id: '', type: 'post', by: 0, words: 0, seq: 0, shownAt: '' },
  { id: '', name: '', givenName: '', initials: '', isStaff: false, role: null, isMe: false },
)
const MAY_BE_UNUSUAL = Object.keys(Unusual.shape) as ReadonlyArray<keyof Unusual> // its own keys

function unusualOf(view: WholeContribution): Unusual | undefined {
  let more: Partial<Record<keyof Unusual, unknown>> | undefined
  for (const name of MAY_BE_UNUSUAL)
    if (!isUsual(view[name], ORDINARY[name])) (more ??= {})[name] = view[name]
  return more as Unusual | undefined // fields of the view under their own names
}

const isUsual = (value: unknown, usual: unknown): boolean =>
  value === usual || (Array.isArray(value) && value.length === 0)

/** @returns the talk that was packed */
export function unpackThread({ authors, contributions, ...head }: PackedThread): ThreadView {
  const unpack = (sent: PackedContribution): ContributionView =>
    sent.view === 'whole' ? unpacked(sent, authors[sent.by]!) : sent
  return { ...head, contributions: contributions.map(unpack) }
}
