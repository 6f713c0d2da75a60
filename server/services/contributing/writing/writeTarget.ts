import type { ContributionDetail } from '#core/kinds/contributionDetail'
import { and, eq, inArray, lte } from 'drizzle-orm'
import { KINDS } from '#core/kinds'
import type { ContributionType } from '#core/contributing/contribution'
import { talkOf } from '#core/contributing/talkSettings'
import { isStaff, type ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, prompts } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import type { TakesUp, Written } from '#shared/contributing/thread'
import { type EntryWrite, hooksOf } from '#server/services/contributing/kindHooks'
import { asksQuestions } from '#server/services/contributing/shapeForReader'
import { localTime } from '#core/planning/localTime'
import { requireOpenToWords } from '#server/services/contributing/closeToWords'
import { readable } from '#server/services/contributing/readable'

export interface WriteTarget {
  readonly type: ContributionType
  readonly detail: ContributionDetail
  readonly promptId: string | null
  readonly threadId: string | null // null: it begins a thread
  readonly openerId: string | null
}

/**
 * Where something is about to be written: refuses a place that is not there, not open to the writer or withdrawn,
 * with the sentence for the writing field. `lock` keeps the answered text from being withdrawn until the write is done.
 */
export async function requireWriteTarget(
  db: Db,
  actor: ActivityActor,
  write: Pick<Written, 'parentId' | 'promptId' | 'title' | 'takesUp'> &
    Partial<Pick<Written, 'term' | 'note'>>,
  now: Date,
  lock = false,
): Promise<WriteTarget> {
  const { activity } = actor
  const kind = KINDS[activity.kind]
  if (
    (activity.state !== 'published' || now < activity.opensAt) &&
    !(kind.staffBegin && isStaff(actor.enrolment))
  ) {
    throw refusedField(
      'doc',
      'notOpen',
      `This has not opened yet. It opens ${localTime(activity.opensAt, actor.seminar.timeZone)}; your text is kept here until then.`,
    )
  }
  if (kind.standsIn === 'pages')
    throw refusedField(
      'doc',
      'onPages',
      'A wiki is written and commented on page by page. Your text is kept here; take it to its page.',
    )
  requireOpenToWords(actor, false)
  return write.parentId === null
    ? entryTarget(db, actor, write, now, lock)
    : answerTarget(db, actor, write.parentId, write, now, lock)
}

/** A text that answers nothing: an opening post, an entry, an answer to a prompt. */
async function entryTarget(
  db: Db,
  actor: ActivityActor,
  write: EntryWrite,
  now: Date,
  posting: boolean,
): Promise<WriteTarget> {
  const { activity, enrolment } = actor
  const { entryType, handsIn, oncePerStudent } = KINDS[activity.kind]
  if (asksQuestions(activity) && !isStaff(enrolment))
    throw refusedField(
      'doc',
      'staffOpen',
      'The questions are put by the instructor here. Choose one and answer it; your text is kept here.',
    )
  if (oncePerStudent && !isStaff(enrolment)) {
    const own = await db.$count(
      contributions,
      and(
        eq(contributions.activityId, activity.id),
        eq(contributions.authorId, enrolment.id),
        inArray(contributions.state, ['shown', 'awaitingApproval']),
      ),
    )
    if (own > 0)
      throw refusedField(
        'doc',
        'once',
        'Your answer is in already. You can change it as long as it is open to change.',
      )
  }
  const { entryDetail } = hooksOf(activity.kind)
  if (entryDetail)
    return {
      type: entryType,
      detail: await entryDetail(db, actor, write, posting),
      promptId: null,
      threadId: null,
      openerId: handsIn ? enrolment.id : opener(enrolment, null),
    }
  if (write.promptId) {
    const [prompt] = await db
      .select({ id: prompts.id })
      .from(prompts)
      .where(
        and(eq(prompts.id, write.promptId), eq(prompts.activityId, activity.id), lte(prompts.releaseAt, now)),
      )
    if (!prompt)
      throw refusedField(
        'doc',
        'noPrompt',
        'This prompt is not there, or not out yet. Your text is kept here.',
      )
  }
  return {
    type: entryType,
    detail: write.title ? { title: write.title } : {},
    promptId: write.promptId,
    threadId: null,
    openerId: opener(enrolment, null),
  }
}

async function answerTarget(
  db: Db,
  actor: ActivityActor,
  parentId: string,
  write: Pick<Written, 'takesUp'>,
  now: Date,
  lock: boolean,
): Promise<WriteTarget> {
  const { activity, enrolment } = actor
  const { entryType, answerType, handsIn } = KINDS[activity.kind]
  if (handsIn)
    throw refusedField('doc', 'noAnswers', 'Work is reviewed in a room of its own here, not answered.')
  if (!answerType) throw refusedField('doc', 'noAnswers', 'Nothing can be answered here.')
  if (lock)
    await db
      .select({ id: contributions.id })
      .from(contributions)
      .where(eq(contributions.id, parentId))
      .for('share')
  const parent = await readable(db, actor, parentId, now)
  if (!parent)
    throw refusedField(
      'doc',
      'nothingToAnswer',
      'The post you answer is not there, or not open to you yet. Your text is kept here.',
    )
  if (parent.row.state === 'withdrawn') {
    throw refusedField(
      'doc',
      'withdrawn',
      `${parent.name} has withdrawn this post, so it can no longer be answered. Your text is kept here; you could post it elsewhere.`,
    )
  }
  if (parent.row.state !== 'shown')
    throw refusedField(
      'doc',
      'notShown',
      'This is not shown to the others yet. It can be answered once it is.',
    )
  const toQuestion = asksQuestions(activity) && parent.row.parentId === null
  if (
    talkOf(activity.settings).replies === 'top' &&
    !isStaff(enrolment) &&
    !toQuestion &&
    parent.row.type !== entryType
  ) {
    throw refusedField(
      'doc',
      'topOnly',
      'Here one replies to the opening post only. Your text is kept here; post it there.',
    )
  }
  const above = await db
    .select({ id: contributions.id, text: contributions.text, closed: contributions.closedToWords })
    .from(contributions)
    .where(inArray(contributions.id, [parentId, parent.row.threadId]))
  requireOpenToWords(actor, above.find(c => c.id === parent.row.threadId)?.closed ?? false)
  const text = above.find(c => c.id === parentId)?.text ?? ''
  const { takesUp } = write
  if (takesUp && !text.includes(takesUp.exact)) {
    throw refusedField(
      'takesUp',
      'passageGone',
      'The passage you took up is no longer in the post. Choose it again, or post without it.',
    )
  }
  return {
    type: toQuestion && !isStaff(enrolment) ? entryType : answerType,
    detail: takesUp ? { takesUp: withContext(text, { ...takesUp, contributionId: parentId }) } : {},
    promptId: toQuestion ? parent.row.id : null,
    threadId: parent.row.threadId,
    openerId: opener(enrolment, parent.row.openerId),
  }
}

/** Whose branch of the talk it is in: staff open none. */
const opener = (enrolment: ActivityActor['enrolment'], above: string | null) =>
  above ?? (isStaff(enrolment) ? null : enrolment.id)

const CONTEXT = 32 // characters kept before and after, as the W3C text quote selector has them

function withContext(text: string, { contributionId, exact }: TakesUp) {
  const at = text.indexOf(exact)
  return {
    contributionId,
    exact,
    prefix: text.slice(Math.max(0, at - CONTEXT), at),
    suffix: text.slice(at + exact.length, at + exact.length + CONTEXT),
  }
}
