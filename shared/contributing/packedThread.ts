import { z } from 'zod'
import { AuthorView, PlaceView, ThreadHead, WholeView } from './thread'
import type { ContributionView, ThreadView, WholeContribution } from './thread'

/** Fields that are left out of the answer where they have the value that most contributions of a talk have. */
const Unusual = WholeView.pick({
  state: true,
  withdrawn: true,
  mayPutBack: true,
  html: true,
  showAt: true,
  editedAt: true,
  isNew: true,
  nods: true,
  nodded: true,
  takesUp: true,
  changeUntil: true,
  withdrawUntil: true,
  onTop: true,
  openToClass: true,
  promptId: true,
  title: true,
  term: true,
  note: true,
  files: true,
  circle: true,
  alias: true,
  done: true,
  points: true,
  sentBack: true,
  version: true,
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
  // field by field, for a long talk has thousands of them
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
          more: isOrdinary(view) ? undefined : unusualOf(view),
        }
      : view
  return { ...head, contributions: contributions.map(pack), authors }
}

const isOrdinary = (view: WholeContribution): boolean =>
  view.state === 'shown' &&
  !view.withdrawn &&
  !view.mayPutBack &&
  view.html === null &&
  view.showAt === null &&
  view.editedAt === null &&
  !view.isNew &&
  view.nods === 0 &&
  !view.nodded &&
  view.takesUp === null &&
  view.changeUntil === null &&
  view.withdrawUntil === null &&
  !view.onTop &&
  !view.openToClass &&
  view.promptId === null &&
  view.title === null &&
  view.term === null &&
  view.note === null &&
  view.files.length === 0 &&
  view.circle === null &&
  view.alias === null &&
  view.done === null &&
  view.points === null &&
  view.sentBack === null &&
  view.version === 1

const unusualOf = (view: WholeContribution): Unusual => ({
  state: view.state === 'shown' ? undefined : view.state,
  withdrawn: view.withdrawn || undefined,
  mayPutBack: view.mayPutBack || undefined,
  html: view.html ?? undefined,
  showAt: view.showAt ?? undefined,
  editedAt: view.editedAt ?? undefined,
  isNew: view.isNew || undefined,
  nods: view.nods === 0 ? undefined : view.nods,
  nodded: view.nodded || undefined,
  takesUp: view.takesUp ?? undefined,
  changeUntil: view.changeUntil ?? undefined,
  withdrawUntil: view.withdrawUntil ?? undefined,
  onTop: view.onTop || undefined,
  openToClass: view.openToClass || undefined,
  promptId: view.promptId ?? undefined,
  title: view.title ?? undefined,
  term: view.term ?? undefined,
  note: view.note ?? undefined,
  files: view.files.length === 0 ? undefined : view.files,
  circle: view.circle ?? undefined,
  alias: view.alias ?? undefined,
  done: view.done ?? undefined,
  points: view.points ?? undefined,
  sentBack: view.sentBack ?? undefined,
  version: view.version === 1 ? undefined : view.version,
})

/** @returns the talk that was packed */
export function unpackThread({ authors, contributions, ...head }: PackedThread): ThreadView {
  const unpack = (sent: PackedContribution): ContributionView =>
    sent.view === 'whole' ? unpacked(sent, authors[sent.by]!) : sent
  return { ...head, contributions: contributions.map(unpack) }
}

const unpacked = ({ more = {}, ...sent }: PackedWhole, author: AuthorView): WholeContribution => ({
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
