import type { ExpectationRule } from '#core/planning/expectations/rule'
import type { PhaseName } from '#core/planning/schedule'
import type { ContributionType } from '#core/contributing/contribution'
import type { TalkSettings } from '#core/contributing/talkSettings'

export const ACTIVITY_KINDS = [
  'discussion',
  'journal',
  'blog',
  'wiki',
  'reading',
  'review',
  'lexicon',
  'exitNote',
] as const
export type ActivityKind = (typeof ACTIVITY_KINDS)[number]

/** The parts of an activity's settings that belong to one kind alone. */
export const OWN_PARTS = ['wiki', 'reading', 'review', 'lexicon'] as const
export type OwnPart = (typeof OWN_PARTS)[number]

/** What decides how a talk opens, of an activity's settings. */
export interface KindSettings extends Partial<TalkSettings> {
  readonly reading?: { readonly writeFirst: 'page' | 'none' }
}

/** One word for one thing, and for several. */
export type OneAndMany = readonly [one: string, many: string]

/** All that differs between kinds of activity; everything else is written once for contributions. */
export interface KindDefinition {
  readonly kind: ActivityKind

  // what is written
  readonly entryType: ContributionType // what an "entry" is: a post, a journal entry, a page version …
  readonly answerType: ContributionType | null // what answers it, null where nobody answers
  readonly entryWord: OneAndMany
  readonly answerWord: OneAndMany
  readonly promptWord: string // what staff ask in it
  readonly standsIn: 'thread' | 'pages' // pages have a history and comments in place of a thread
  readonly tiedTo: 'nothing' | 'pages' | 'passages' // what its contributions would lose if the activity became another kind
  readonly oncePerStudent: boolean // whether a student writes one entry only
  readonly handsIn: boolean // entries are works that are handed in, without a name, until hand-in ends
  readonly canWait: boolean // whether an entry can wait for a time to be shown at
  readonly staffBegin: boolean // staff write before it opens, and what they begin stands open to everyone

  // who reads
  readonly readBy: 'class' | 'staff' // whom others' contributions may reach when no setting says otherwise
  readonly reach: 'class' | 'thread' | 'own' | 'asOpened' // whom a thread reaches; `own`: it has a policy of its own; `asOpened`: by the setting `opening`
  readonly namesSilent: boolean // whether classmates see who has not been heard yet
  readonly asksQuestions: (settings: KindSettings) => boolean // whether staff put questions that all answer
  readonly opensByPart: (settings: KindSettings) => boolean // whether others' contributions to a part open with one's own to it

  // what is planned
  readonly workingPhases: readonly PhaseName[] // phases a student works in, in their usual order
  readonly usualWeeks: readonly number[] // teaching weeks each of them usually takes; fewer where the term ends before
  readonly expects: ReadonlyArray<ExpectationRule['kind']> // what can be asked of students here
  // of these, what is offered at one click, in this order
  readonly offers: (settings: KindSettings) => ReadonlyArray<ExpectationRule['kind']>
  readonly usualRules: readonly ExpectationRule[]
  readonly usualTitle: string
  readonly usualWriteFirst: boolean
  readonly ownPart: OwnPart | null // the part of the settings that is this kind's alone
  readonly ownTalk: ReadonlyArray<keyof TalkSettings> // settings of a talk that not every kind has
  readonly dueAsUsual: boolean // whether another time of day than the usual one is worth a remark
  readonly wantsStarter: boolean // whether an opening example is missed
  readonly goesOn: boolean // whether asking for a single entry is worth a remark

  // how it is marked
  readonly markedBy: 'staff' | 'peers' // whose scores come first: it has a desk of its own where these are peers'
  readonly sharesPoints: boolean // whether a mark of a whole group here can be shared by teammates' scores
  readonly measured: boolean // whether voices are measured in it
}

/** Expectations that any kind can have. */
export const ANYWHERE = ['entries', 'weeklyEntries', 'prompts', 'holds', 'activeDays'] as const
/** Settings of a talk that every kind has. */
export const EVERY_TALK = ['apart', 'namesHidden', 'approval', 'withdrawMinutes', 'attach'] as const
/** Of a kind in which staff put no questions, and nothing opens part by part. */
export const never = (): boolean => false
