import type { SubmissionMethod } from '#core/kinds/review/reviewSettings'
import type { ContributionDetail } from '#core/kinds/contributionDetail'
import type { ActivityKind } from '#core/kinds/kind'
import type { Actor, ActivityActor, ActivityRow, Enrolment } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import type { contributions } from '#server/database/schema'
import type { renderDoc } from '#server/richText/renderDoc'
import type { ActivityView } from '#shared/contributing/activity'
import type { ContributionView, PostWrite, Written } from '#shared/contributing/thread'
import type { ActivityBody } from '#shared/planning/composer'

type Contribution = typeof contributions.$inferSelect
export type EntryWrite = Pick<Written, 'promptId' | 'title'> & Partial<Pick<Written, 'term' | 'note'>>

/** A page that holds words somebody looked for. */
export interface FoundPage {
  readonly activityId: string
  readonly id: string // of the contribution
  readonly pageId: string
  readonly groupId: string | null
  readonly title: string
}

/**
 * What of writing, reading and planning goes otherwise in one kind of activity. What a kind leaves out is done as for
 * every kind. `server/kinds/hooks.ts` is the registry; the server makes it known when it starts.
 */
export interface KindHooks {
  /** What an entry is besides its text. @throws {Problem} where it may not be written; while it is a draft, anything may be missing */
  readonly entryDetail?: (
    db: Db,
    actor: ActivityActor,
    write: EntryWrite,
    posting: boolean,
  ) => Promise<ContributionDetail>
  /** What an entry is besides its text once that is changed; null: as before. */
  readonly changedDetail?: (
    db: Db,
    actor: ActivityActor,
    current: Contribution,
    write: Partial<Pick<Written, 'term'>>,
  ) => Promise<ContributionDetail | null>
  /** When a hand-in counts, and how it came in. @throws {Problem} where it is too late, or not taken in this way */
  readonly handIn?: (
    db: Db,
    actor: ActivityActor,
    write: PostWrite,
    work: ReturnType<typeof renderDoc>,
    now: Date,
  ) => Promise<{ readonly at: Date; readonly way: SubmissionMethod }>
  /** Until when an author may change their own, where that is not counted in minutes. */
  readonly changeUntil?: (
    db: Db,
    actor: Pick<ActivityActor, 'activity' | 'enrolment'>,
  ) => Promise<Date | null>
  /** Refuses a change of one's own that its kind does not allow, in place of the limit in minutes. */
  readonly requireChangeable?: (
    db: Db,
    actor: ActivityActor,
    current: Contribution,
    verb: string,
    now: Date,
  ) => Promise<void>
  /** The words of a paper that comes with a contribution; empty where they cannot be read. */
  readonly wordsOfPaper?: (bytes: Buffer, name: string) => Promise<string>
  /** Whether somebody may read a contribution, where its kind has a policy of its own. */
  readonly mayRead?: (
    db: Db,
    actor: Actor & { readonly activity: ActivityRow },
    contributionId: string,
    now: Date,
  ) => Promise<boolean>
  /** What open pages are told of a change, by reader, where contributions stand in pages; null for whom there is no such page. */
  readonly changedPage?: (
    db: Db,
    activity: ActivityRow,
    id: string,
    now: Date,
  ) => Promise<((reader: Enrolment) => string | null) | null>
  /** Of a long talk what is read first. */
  readonly firstRead?: (activity: ActivityRow, views: readonly ContributionView[]) => ContributionView[]
  /** Those of the contributions that somebody may read, where these stand in pages. */
  readonly findPages?: (
    db: Db,
    actor: Actor,
    activities: readonly ActivityRow[], // those of the kind they are in
    ids: readonly string[],
    now: Date,
  ) => Promise<readonly FoundPage[]>
  /** Makes what must be there before anybody looks, in the transaction of a change that concerns the activity. */
  readonly prepare?: (tx: Db, activity: ActivityRow, now: Date) => Promise<void>
  /** What a reader is told of the settings that are this kind's own. */
  readonly settingsFor?: (
    activity: ActivityRow,
    isStaff: boolean,
  ) => Partial<Pick<ActivityView, 'review' | 'lexicon'>>
  /** Refuses a change of the plan that would lose what was written. */
  readonly requireKept?: (db: Db, before: ActivityRow, body: ActivityBody) => Promise<void>
}

let known: Readonly<Record<ActivityKind, KindHooks>> | null = null

/** Makes the kinds' hooks known: once, before anything is written. */
export function registerKinds(hooks: Readonly<Record<ActivityKind, KindHooks>>): void {
  known = hooks
}

/** @throws if no registry was made known: contributing lies below the kinds, and does not import them */
export function hooksOf(kind: ActivityKind): KindHooks {
  if (!known) throw new Error('the kinds are not known yet: import #server/kinds/register first')
  return known[kind]
}
