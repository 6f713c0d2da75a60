import { z } from 'zod'
import { AuthorView, PlaceView, ThreadHead, WholeView } from './thread'
import type { ContributionView, ThreadView, WholeContribution } from './thread'

/** Fields that are left out of the answer where they have the value that most contributions of a talk have. */
const USUAL = {
  parentId: true,
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
} as const

/** A contribution without what it shares with most others: its author by number, usual values left out. */
const PackedContribution = z.discriminatedUnion('view', [
  WholeView.omit({ author: true, threadId: true }).partial(USUAL).extend({
    by: z.number().int(), // place of its author in `authors`
    threadId: z.uuid().optional(), // left out of what begins a thread
  }),
  PlaceView,
])
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
  function pack(view: ContributionView): PackedContribution {
    if (view.view !== 'whole') return view
    return {
      view: 'whole',
      id: view.id,
      type: view.type,
      by: by(view.author),
      words: view.words,
      seq: view.seq,
      shownAt: view.shownAt,
      threadId: view.threadId === view.id ? undefined : view.threadId,
      parentId: view.parentId ?? undefined,
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
    }
  }
  return { ...head, contributions: contributions.map(pack), authors }
}

/** @returns the talk that was packed */
export function unpackThread({ authors, contributions, ...head }: PackedThread): ThreadView {
  const unpack = (sent: PackedContribution): ContributionView =>
    sent.view === 'whole' ? unpacked(sent, authors[sent.by]!) : sent
  return { ...head, contributions: contributions.map(unpack) }
}

const unpacked = (
  sent: Extract<PackedContribution, { view: 'whole' }>,
  author: AuthorView,
): WholeContribution => ({
  view: 'whole',
  id: sent.id,
  type: sent.type,
  author,
  words: sent.words,
  seq: sent.seq,
  shownAt: sent.shownAt,
  threadId: sent.threadId ?? sent.id,
  parentId: sent.parentId ?? null,
  state: sent.state ?? 'shown',
  withdrawn: sent.withdrawn ?? false,
  mayPutBack: sent.mayPutBack ?? false,
  html: sent.html ?? null,
  showAt: sent.showAt ?? null,
  editedAt: sent.editedAt ?? null,
  isNew: sent.isNew ?? false,
  nods: sent.nods ?? 0,
  nodded: sent.nodded ?? false,
  takesUp: sent.takesUp ?? null,
  changeUntil: sent.changeUntil ?? null,
  withdrawUntil: sent.withdrawUntil ?? null,
  onTop: sent.onTop ?? false,
  openToClass: sent.openToClass ?? false,
  promptId: sent.promptId ?? null,
  title: sent.title ?? null,
  term: sent.term ?? null,
  note: sent.note ?? null,
  files: sent.files ?? [],
  circle: sent.circle ?? null,
  alias: sent.alias ?? null,
  done: sent.done ?? null,
  points: sent.points ?? null,
  sentBack: sent.sentBack ?? null,
  version: sent.version ?? 1,
})
