import { customType } from 'drizzle-orm/pg-core'

/** What is written down of who did what: the code of each act, and the words under which the database keeps it. */
export const AUDIT_ACTS = {
  contributionMarked: 'marked a contribution',
  answerMarked: 'marked an answer', // written by earlier versions
  reviewSetAside: 'set a review aside',
  reviewKept: 'kept a review',
  reviewLeftOpen: 'left a review open',
  reviewsReleased: 'released reviews',
  reviewsHeldAgain: 'held reviews again',
  consensusTaken: 'took the consensus of reviewers',
  ownPointsTaken: 'took own points beside reviewers',
  takeUndone: 'undid taking points',
  groupMarkShared: 'shared the group’s mark',
  markMovedToVersion: 'moved a mark to another version',
  markedSecondTime: 'marked a second time',
  secondMarkingAgreed: 'agreed on a second marking',
  marksImported: 'took marks in',
  markPointsSet: 'set the points of a mark',
  markStepsChanged: 'changed the steps of a mark',
  latenessWaived: 'waived lateness',
  latenessCounted: 'counted lateness again',
  studentExcused: 'excused from the activity',
  excuseEnded: 'no longer excused',
  markingShared: 'shared the marking out',
  rubricVersionMade: 'made a version of a rubric',
  groupStepsSet: 'set the group’s steps',
  markHeld: 'held a mark',
  markReopened: 'took a held mark back',
  markReturned: 'returned a mark',
  returnUndone: 'took a returned mark back',
  returnScheduled: 'set when a mark returns',
  returnUnscheduled: 'let a mark wait',
  activityScheduled: 'scheduled an activity',
  activityPublished: 'published an activity',
  activityUnpublished: 'took an activity back to draft',
  activityLocked: 'locked an activity',
  activityUnlocked: 'unlocked an activity',
  extensionGiven: 'gave an extension',
  extensionTakenAway: 'took an extension away',
  activityPlanned: 'planned an activity',
  draftActivityRemoved: 'took a draft away',
  activityMoved: 'moved an activity',
  activityChanged: 'changed an activity',
  personErased: 'erased a person',
  messageRuleOn: 'messageRuleOn',
  messageRuleOff: 'messageRuleOff',
  textAdded: 'added a text',
  textVersionAdded: 'added a version of a text',
  pageRemoved: 'took a page out',
  pageRestored: 'put a page back',
  reviewsAllocated: 'dealt reviews out',
  allocationsChanged: 'moved reviews by hand',
  paperHandInTicked: 'ticked work off as handed in on paper',
  contributionApproved: 'approved a contribution',
  contributionSentBack: 'sent a contribution back',
  contributionWithdrawn: 'withdrew a contribution',
  contributionRestored: 'put a contribution back',
  entryOpenedToClass: 'opened an entry to the class',
  entryClosed: 'closed an entry',
  closedToWords: 'closed a discussion or thread to new words',
  openedToWords: 'opened a discussion or thread to new words',
  personRestored: 'brought a person back',
  personAdded: 'added a person',
  personChanged: 'changed a person',
  groupPlanChanged: 'changed a group plan',
  groupPlanRemoved: 'removed a group plan',
  rosterImported: 'imported a roster',
  settingsChanged: 'changed the settings',
  seminarArchived: 'archived the seminar',
  seminarRestored: 'brought the seminar back',
  joinedByCode: 'joined by code',
  archiveRestored: 'brought the seminar back from an archive',
  silenceEnded: 'let people be told again',
} as const
export type AuditAct = keyof typeof AUDIT_ACTS

const CODES = new Map<string, AuditAct>(
  (Object.keys(AUDIT_ACTS) as AuditAct[]).map(code => [AUDIT_ACTS[code], code]), // the keys of that object
)

/** A text column of acts: codes in our code, the same words in the database and in archives as ever. */
export const auditAct = customType<{ data: AuditAct; driverData: string }>({
  dataType: () => 'text',
  toDriver: code => AUDIT_ACTS[code] ?? code, // what is brought back from an archive stands in its words
  fromDriver: words => CODES.get(words) ?? (words as AuditAct), // an act of another version is named by its words
})
