import type { ActivityRow, Seminar } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'

type About<Kind extends string, Facts = unknown> = {
  readonly kind: Kind
  readonly activity: Pick<ActivityRow, 'id' | 'title'>
} & Facts
type ToOne = { readonly enrolmentId: string }
type ToSome = { readonly enrolmentIds: readonly string[] }

/** What has happened and people should learn of. Who says it does not decide who is told, in which words, or how. */
export type Event =
  | { readonly kind: 'published'; readonly activity: ActivityRow; readonly seminar: Seminar }
  | {
      readonly kind: 'planChanged'
      readonly activity: ActivityRow
      readonly seminar: Seminar
      readonly before: ComposerView['body']
      readonly after: ActivityBody
    }
  | About<'approved', ToOne & { readonly contributionId: string }>
  | About<'sentBack', ToOne & { readonly contributionId: string; readonly remark: string }>
  | About<'returned', ToOne & { readonly isNew: boolean }> // isNew: another letter had come back before
  | About<'wroteBack', ToOne & { readonly by: string; readonly studentId: string }>
  | About<'secondAsked', ToOne & { readonly by: string; readonly studentIds: readonly string[] }>
  | About<'released', ToSome>
  | About<
      'reviewJudged',
      ToOne & { readonly counts: boolean; readonly reason: string; readonly reviewId: string }
    > // reviewId: the reviewer's address of it
  | About<'reviewAnswered', ToOne & { readonly reviewId: string }>
  | About<'reviewsOwed', ToSome & { readonly words: string }>
  | About<'closingOpened', ToSome & { readonly named: boolean }>

export type Listener = (tx: Db, event: Event, now: Date) => Promise<void>
let listener: Listener | null = null

/** Who is told of events: one for the whole process, from an area above all that say something. */
export function listenToEvents(listen: Listener): void {
  listener = listen
}

/** Says what has happened, within the transaction in which it did. */
export async function happened(tx: Db, event: Event, now: Date): Promise<void> {
  if (!listener) throw new Error('Nobody listens to events: call listenToEvents when the process starts.')
  await listener(tx, event, now)
}
