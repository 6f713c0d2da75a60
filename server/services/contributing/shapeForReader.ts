import { detailOf, takenUpBy, titleOf, type Detailed } from '#core/kinds/contributionDetail'
import type { StoredNote } from '#core/kinds/reading/storedNote'
import { neutralName } from '#core/contributing/neutralName'
import { KINDS } from '#core/kinds'
import { reachOf } from '#core/contributing/openings'
import { readerView, type ReaderRole } from '#core/contributing/readerView'
import { talkOf } from '#core/contributing/talkSettings'
import { isStaff, type ActivityRow, type Enrolment } from '#server/access/seminar'
import type { AttachedFile, AuthorView, ContributionView } from '#shared/contributing/thread'
import { authorView } from '#server/services/people'
import { aliasKey, type Aliases } from './aliases'
import { discussionGroupOf, type DiscussionGroups } from './discussionGroups'
import type { StoredContribution } from './storedContributions'

export interface Reader {
  readonly activity: ActivityRow
  readonly enrolment: Enrolment
  readonly seenSeq: number | null // null: never here before
  readonly now: Date
}

type Root = Pick<StoredContribution, 'authorId' | 'role' | 'openToClass' | 'type' | 'detail'>

/** What else a view is made of, and what tells whether the reader's own is in: by default the rows themselves. */
export interface Surroundings {
  readonly aliases: Aliases
  readonly discussionGroups: DiscussionGroups | null // null: all talk together
  readonly files: ReadonlyMap<string, readonly AttachedFile[]>
  readonly roots?: ReadonlyMap<string, Root> // of threads whose first contribution is not among the rows
  readonly ownIn?: ReadonlySet<string> // as `openedByOwn`
  readonly handInUntil?: Date | null // of a peer review: when the reader's own hand-in ends
  readonly answered?: ReadonlySet<string> // contributions below which something is shown
}

export const readerRole = (enrolment: Enrolment): ReaderRole => {
  if (isStaff(enrolment)) return 'staff'
  if (enrolment.role === 'observer') return 'observer'
  return 'student'
}

/**
 * Where the reader has an entry of their own that is shown: what opens the others' to them. In a discussion in which staff
 * put the questions, each question is a place of its own, in a reading that is opened page by page each page; elsewhere
 * one entry opens all, under the key ''.
 */
export function openedByOwn(
  rows: readonly Pick<StoredContribution, 'authorId' | 'state' | 'type' | 'promptId' | 'detail'>[],
  reader: Pick<Reader, 'activity' | 'enrolment'>,
): Set<string> {
  const { entryType } = KINDS[reader.activity.kind]
  const byQuestion = asksQuestions(reader.activity)
  return new Set(
    rows
      .filter(r => r.authorId === reader.enrolment.id && r.state === 'shown' && r.type === entryType)
      .flatMap(r => {
        if (byQuestion) return [r.promptId ?? '']
        if (writesByPage(reader.activity)) return ['', pageKey(r)]
        return ['']
      }),
  )
}

/** Whether staff put the questions here, for all to answer. */
export const asksQuestions = (activity: ActivityRow): boolean =>
  KINDS[activity.kind].asksQuestions(activity.settings)

/** Whether others' contributions to a part (a page of a reading) show once one has written on that part. */
export const writesByPage = (activity: ActivityRow): boolean =>
  KINDS[activity.kind].opensByPart(activity.settings)

const pageKey = (row: Detailed): string => `page ${detailOf(row, 'note').note?.part}`

/**
 * The one place that decides what of an activity's contributions leaves the server for a reader.
 * @param rows stored contributions of the activity, in the order they were shown
 */
export function shapeForReader(
  rows: readonly StoredContribution[],
  reader: Reader,
  around: Surroundings,
): { waiting: boolean; waitingAt: string[]; contributions: ContributionView[] } {
  const { activity, enrolment, seenSeq, now } = reader
  const talk = talkOf(activity.settings)
  const role = readerRole(enrolment)
  const byQuestion = asksQuestions(activity)
  const byPage = writesByPage(activity)
  const { handsIn, staffBegin } = KINDS[activity.kind]
  const ownIn = around.ownIn ?? openedByOwn(rows, reader)
  const beforeReveal = isBeforeReveal(activity, now)
  const answered = around.answered ?? shownAbove(rows)
  const roots = new Map<string, Root>(around.roots)
  for (const row of rows) if (row.parentId === null) roots.set(row.id, row)
  const mine = discussionGroupOf(around.discussionGroups, enrolment.id)
  const takenUp = new Set(rows.flatMap(r => takenUpBy(r)?.contributionId ?? []))
  const whole = new Set<string>() // of those
  const authors = new Map<string, AuthorView>()
  const views: ContributionView[] = []
  for (const row of rows) {
    const isAuthor = row.authorId === enrolment.id
    // a review names the work it is of: its reviewer has it in their own room, without that name
    if (row.type === 'review' && role !== 'staff') continue
    const root = roots.get(row.threadId)
    // what staff put first stands open: questions that all answer, starter notes in a margin
    const isQuestion = (byQuestion || staffBegin) && row.parentId === null && isStaffRole(row.role)
    const opener = row.openerId ?? (isStaffRole(row.role) ? null : row.authorId)
    const draftKey = () => {
      if (byQuestion) return row.threadId
      if (byPage && root) return pageKey(root)
      return ''
    }
    const view = readerView({
      role,
      isAuthor,
      state: row.state,
      authorIsStaff: isStaffRole(row.role),
      isQuestion,
      reach: reachOf(activity.kind, talk.opening, root?.openToClass ?? false),
      ownsThread: root?.authorId === enrolment.id,
      threadByStaff: root !== undefined && isStaffRole(root.role),
      elsewhere: opener !== null && discussionGroupOf(around.discussionGroups, opener) !== mine,
      writeFirst: activity.settings.writeFirst || byPage,
      ownIsIn: ownIn.has(draftKey()),
      hasShownAnswers: answered.has(row.id),
      beforeReveal,
    })
    const shownAt = row.at
    if (view === 'place')
      views.push({ view, id: row.id, parentId: row.parentId, shownAt: shownAt.toISOString() })
    if (view !== 'whole') continue
    if (takenUp.size > 0 && takenUp.has(row.id)) whole.add(row.id)
    const takesUp = takenUpBy(row)
    const { note } = detailOf(row, 'note')
    const { term } = detailOf(row, 'term')
    const hidden = talk.namesHidden && !isStaffRole(row.role)
    const alias = hidden ? around.aliases.get(aliasKey(row.threadId, row.authorId)) : undefined
    const files = around.files.get(row.id) ?? []
    const until = isAuthor ? windows(row) : NOT_OPEN
    views.push({
      view: 'whole',
      id: row.id,
      parentId: row.parentId,
      threadId: row.threadId,
      type: row.type,
      state: row.state as Exclude<typeof row.state, 'draft'>,
      author: hidden && role !== 'staff' ? behind(alias, row.threadId, isAuthor) : authorOf(row),
      circle: role === 'staff' && opener ? discussionGroupOf(around.discussionGroups, opener) : null,
      alias: hidden && (role === 'staff' || isAuthor) ? (alias?.name ?? null) : null,
      withdrawn: row.state === 'withdrawn',
      mayPutBack:
        row.state === 'withdrawn' &&
        (role === 'staff' ||
          (isAuthor &&
            (row.withdrawnBy === null || row.withdrawnBy === enrolment.id) &&
            changeableUntil(enrolment, row.shownAt ?? now, talk.withdrawMinutes) >= now)),
      html: row.html,
      words: row.words,
      seq: row.seq,
      shownAt: shownAt.toISOString(),
      showAt: row.state === 'scheduled' ? (row.showAt?.toISOString() ?? null) : null,
      editedAt: row.editedAt?.toISOString() ?? null,
      isNew: !isAuthor && seenSeq !== null && row.seq !== null && row.seq > seenSeq,
      nods: row.nods,
      nodded: row.nodded,
      onTop: row.onTop,
      openToClass: row.openToClass,
      promptId: row.promptId,
      title: titleOf(row),
      note: note ? noteView(note) : null,
      term: term ? { ...term, forms: [...term.forms] } : null,
      files: hidden && role !== 'staff' && !isAuthor ? files.map(unnamed) : [...files],
      // a passage is passed on only with the text it was taken from
      takesUp:
        takesUp && whole.has(takesUp.contributionId)
          ? { contributionId: takesUp.contributionId, exact: takesUp.exact }
          : null,
      changeUntil: until.changeUntil,
      withdrawUntil: until.withdrawUntil,
      // marks that make a mark wait with it until it is returned
      done: (isAuthor && activity.combine === null) || role === 'staff' ? row.done : null,
      points: role === 'staff' ? row.points : null,
      sentBack: isAuthor || role === 'staff' ? row.sentBack : null,
      version: row.version,
    })
  }
  const mustWrite = role === 'student' && activity.settings.writeFirst
  return {
    waiting: role !== 'staff' && !byQuestion && (beforeReveal || (mustWrite && !byPage && !ownIn.has(''))),
    waitingAt:
      byQuestion && role !== 'staff'
        ? rows
            .filter(
              r =>
                r.parentId === null &&
                isStaffRole(r.role) &&
                r.state === 'shown' &&
                (beforeReveal || (mustWrite && !ownIn.has(r.id))),
            )
            .map(r => r.id)
        : [],
    contributions: views,
  }

  function authorOf(row: StoredContribution): AuthorView {
    const known = authors.get(row.authorId)
    if (known) return known
    const { name, givenName, familyName, role } = row
    const view = authorView({ name, givenName, familyName, role, enrolmentId: row.authorId }, enrolment.id)
    authors.set(row.authorId, view)
    return view
  }

  function windows(row: StoredContribution) {
    const open = row.state === 'shown' || row.state === 'awaitingApproval' || row.state === 'scheduled'
    const until = (minutes: number) => {
      const at = changeableUntil(enrolment, row.shownAt ?? now, minutes)
      return open && at >= now ? at.toISOString() : null
    }
    // what staff have let out stands as they read it
    const approved = talk.approval && row.state === 'shown' && role !== 'staff'
    // handed-in work is changed until hand-in ends; its own rule, in `write`, knows when that is for whom
    if (handsIn && role !== 'staff')
      return {
        changeUntil:
          open && around.handInUntil && around.handInUntil >= now ? around.handInUntil.toISOString() : null,
        withdrawUntil:
          open && around.handInUntil && around.handInUntil >= now ? around.handInUntil.toISOString() : null,
      }
    return {
      changeUntil: approved ? null : until(activity.settings.editMinutes),
      withdrawUntil: until(talk.withdrawMinutes),
    }
  }
}

const NOT_OPEN = { changeUntil: null, withdrawUntil: null }
const isStaffRole = (role: string): boolean => role === 'instructor' || role === 'assistant'

/** What something shown hangs below; asked of withdrawn texts alone, so that it is empty where none was withdrawn. */
const shownAbove = (rows: readonly Pick<StoredContribution, 'state' | 'parentId'>[]): Set<string> =>
  new Set(
    rows.some(r => r.state === 'withdrawn')
      ? rows.flatMap(r => (r.state === 'shown' && r.parentId ? [r.parentId] : []))
      : [],
  )

/** Somebody behind their alias: nothing of them but what they are called in this thread. */
function behind(
  alias: { readonly id: string; readonly name: string } | undefined,
  threadId: string,
  isMe: boolean,
): AuthorView {
  const name = alias?.name ?? 'Someone'
  return {
    id: alias?.id ?? threadId,
    name,
    givenName: name,
    initials: name.slice(0, 2),
    isStaff: false,
    role: null,
    isMe,
  }
}

/** A note without who said of a question that it has its answer. */
const noteView = ({
  settled,
  ...note
}: StoredNote): NonNullable<Extract<ContributionView, { view: 'whole' }>['note']> =>
  structuredClone({ ...note, toAt: note.toAt ?? null, settled: !!settled }) as never

/** A file's own name can say whose it is. */
function unnamed(file: AttachedFile, i: number): AttachedFile {
  return { ...file, name: neutralName(`Attachment ${i + 1}`, file.name) }
}

/** Whether classmates' contributions are still hidden from everyone but staff. */
export const isBeforeReveal = (activity: ActivityRow, now: Date): boolean =>
  activity.settings.hiddenUntil ? now < new Date(activity.settings.hiddenUntil) : false

/** Until when an author may change what was shown at `shownAt`; staff always may. */
export const changeableUntil = (enrolment: Enrolment, shownAt: Date, minutes: number): Date =>
  isStaff(enrolment) ? new Date('9999-01-01T00:00:00Z') : new Date(shownAt.getTime() + minutes * 60_000)
