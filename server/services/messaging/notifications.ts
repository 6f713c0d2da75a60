import type { Db } from '#server/database/client'
import type { Event } from '#server/services/events'
import { loadPlan, participants } from '#server/services/planning'
import { tell, type NewNotice } from './notices'
import { changedWords, publishedWords } from './planWords'

/** Who is told of an event, and what. */
interface Notification extends Omit<NewNotice, 'activityId'> {
  readonly to: readonly string[] // enrolments
  /** Where it leads, below the activity's page. */
  readonly at?: string
}

/** Tells people of what has happened. This is the list of all that is told by itself, but for messages that people write. */
export async function notify(tx: Db, event: Event, now: Date): Promise<void> {
  const { to, at = '', ...notice } = await notificationOf(tx, event)
  const { id } = event.activity
  await tell(
    tx,
    to,
    { ...notice, activityId: id },
    seminarId => `/seminars/${seminarId}/activities/${id}${at}`,
    now,
  )
}

async function notificationOf(tx: Db, event: Event): Promise<Notification> {
  const { title } = event.activity
  switch (event.kind) {
    case 'published': {
      const { people, plan } = await everybodyIn(tx, event)
      return { kind: 'published', to: people, ...publishedWords(event, plan) }
    }
    case 'planChanged': {
      const { people, plan } = await everybodyIn(tx, event)
      return { kind: 'changed', to: people, ...changedWords(event, plan) }
    }
    case 'approved':
      return {
        kind: 'contribution',
        to: [event.enrolmentId],
        text: `What you wrote in “${title}” is shown now.`,
        detail: '',
        at: `#c-${event.contributionId}`,
      }
    case 'sentBack':
      return {
        kind: 'contribution',
        to: [event.enrolmentId],
        text: `What you wrote in “${title}” wants a change before it is shown.`,
        detail: event.remark,
        at: `#c-${event.contributionId}`,
      }
    case 'returned':
      return {
        kind: 'letter',
        to: [event.enrolmentId],
        text: event.isNew
          ? `A new letter about “${title}” has come back to you.`
          : `Your letter about “${title}” has come back to you.`,
        detail: '',
        at: '/letter',
      }
    case 'wroteBack':
      return {
        kind: 'letter',
        to: [event.enrolmentId],
        text: `${event.by} wrote back about “${title}”.`,
        detail: '',
        at: event.enrolmentId === event.studentId ? '/letter' : `/desk?student=${event.studentId}`,
      }
    case 'secondAsked':
      return {
        kind: 'marking',
        to: [event.enrolmentId],
        text:
          event.studentIds.length === 1
            ? `${event.by} asks you to mark one record of “${title}” a second time.`
            : `${event.by} asks you to mark ${event.studentIds.length} records of “${title}” a second time.`,
        detail: '',
        at: `/desk?student=${event.studentIds[0]}`,
      }
    case 'released':
      return {
        kind: 'review',
        to: event.enrolmentIds,
        text: `What readers wrote to you in “${title}” can be read now.`,
        detail: '',
      }
    case 'reviewJudged':
      return {
        kind: 'review',
        to: [event.enrolmentId],
        text: event.counts
          ? `A review you wrote in “${title}” counts again.`
          : `A review you wrote in “${title}” does not count.`,
        detail: event.reason,
        at: `/reviews/${event.reviewId}`,
      }
    case 'reviewAnswered':
      return {
        kind: 'review',
        to: [event.enrolmentId],
        text: `Whoever wrote a work you reviewed in “${title}” has answered you.`,
        detail: '',
        at: `/reviews/${event.reviewId}`,
      }
    case 'reviewsOwed':
      return {
        kind: 'review',
        to: event.enrolmentIds,
        text: `Reviews you owe in “${title}”`,
        detail: event.words,
      }
    case 'closingOpened':
      return {
        kind: 'closing',
        to: event.enrolmentIds,
        text: `“${title}”: a few closing questions.`,
        detail: event.named
          ? 'Your name is kept with your answers.'
          : 'Names are not kept: nobody can tell whose an answer is.',
        at: '/closing',
      }
  }
}

/** Those whom an activity is meant for. */
async function everybodyIn(tx: Db, { activity }: Extract<Event, { kind: 'published' | 'planChanged' }>) {
  const plan = await loadPlan(tx, activity)
  const all = await participants(tx, activity)
  return { plan, people: all.filter(plan.isMeant).map(s => s.enrolmentId) }
}
