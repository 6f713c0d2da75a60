import { endpoint } from '../http/endpoint'
import { ActivityView } from './activity'
import { ActivityParams } from '../planning/activityParams'
import { LookAlikesView } from './lookAlikes'
import { FeedView, NamedWrite, TalkExport, TalkExportQuery } from './talkExport'
import {
  ApprovalWrite,
  ContributionParams,
  DraftTarget,
  DraftView,
  DraftWrite,
  EditAnswer,
  EditWrite,
  IdsQuery,
  NodAnswer,
  NodWrite,
  ClosedToWordsWrite,
  OnTopWrite,
  OpenedWrite,
  OwnText,
  PostAnswer,
  PostWrite,
  Revisions,
  TalkFindQuery,
  TalkFound,
  TextsAnswer,
  ThreadQuery,
  VisitWrite,
  WithdrawnWrite,
} from './thread'
import { PackedThread } from './packedThread'
import { Done } from '../http/done'
import { ContributionMarkWrite } from '../marking/desk'
import { SeminarParams } from '../people/seminar'

export const readThread = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/contributions',
  summary: 'The contributions of an activity as their reader may see them',
  params: ActivityParams,
  query: ThreadQuery,
  answer: PackedThread,
})

export const postContribution = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/contributions',
  summary: 'Posts a contribution',
  params: ActivityParams,
  body: PostWrite,
  answer: PostAnswer,
})

export const discardDraft = endpoint({
  method: 'DELETE',
  path: '/api/activities/:activityId/draft',
  summary: "Discards one's draft at one place of an activity",
  params: ActivityParams,
  body: DraftTarget,
  answer: Done,
})

export const saveDraft = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/draft',
  summary: "Keeps one's draft at one place of an activity",
  params: ActivityParams,
  body: DraftWrite,
  answer: DraftView,
})

export const exportThread = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/export',
  logged: 'exported',
  summary: 'The contributions of an activity in a portable form',
  params: ActivityParams,
  query: TalkExportQuery,
  answer: TalkExport,
})

export const closeFeed = endpoint({
  method: 'DELETE',
  path: '/api/activities/:activityId/feed',
  summary: "Closes one's private feed of an activity",
  params: ActivityParams,
  answer: FeedView,
})

export const readFeed = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/feed',
  summary: "One's private feed of an activity, if there is one",
  params: ActivityParams,
  answer: FeedView,
})

export const makeFeed = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/feed',
  summary: 'Makes a private feed of an activity; an older one stops working',
  params: ActivityParams,
  answer: FeedView,
})

export const findInThread = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/find',
  summary: 'Finds contributions of an activity by their words',
  params: ActivityParams,
  query: TalkFindQuery,
  answer: TalkFound,
})

export const readActivity = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId',
  summary: 'An activity as its reader may see it',
  params: ActivityParams,
  answer: ActivityView,
})

export const followActivity = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/live',
  summary: 'Server-sent events: what changes in an activity while one looks',
  params: ActivityParams,
  events: true,
})

export const findLookAlikes = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/look-alikes',
  summary: 'Pairs of contributions that share long passages',
  params: ActivityParams,
  answer: LookAlikesView,
})

export const readTexts = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/texts',
  summary: 'The texts of given contributions',
  params: ActivityParams,
  query: IdsQuery,
  answer: TextsAnswer,
})

export const recordVisit = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/visit',
  summary: 'Records how far one has read in an activity',
  params: ActivityParams,
  body: VisitWrite,
  answer: Done,
})

export const closeActivityToWords = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/closed-to-words',
  summary: 'Closes a discussion to new words of students, or opens it again',
  params: ActivityParams,
  body: ClosedToWordsWrite,
  answer: Done,
})

export const closeThreadToWords = endpoint({
  method: 'PUT',
  path: '/api/contributions/:contributionId/closed-to-words',
  summary: 'Closes a thread to new words of students, or opens it again',
  params: ContributionParams,
  body: ClosedToWordsWrite,
  answer: Done,
})

export const approveContribution = endpoint({
  method: 'PUT',
  path: '/api/contributions/:contributionId/approval',
  summary: 'Approves a contribution, or returns it to its author',
  params: ContributionParams,
  body: ApprovalWrite,
  answer: Done,
})

export const readOwnText = endpoint({
  method: 'GET',
  path: '/api/contributions/:contributionId',
  summary: "One's own contribution with what is needed to change it",
  params: ContributionParams,
  answer: OwnText,
})

export const editContribution = endpoint({
  method: 'PATCH',
  path: '/api/contributions/:contributionId',
  summary: "Changes one's contribution; the earlier text is kept",
  params: ContributionParams,
  body: EditWrite,
  answer: EditAnswer,
})

export const markContribution = endpoint({
  method: 'PUT',
  path: '/api/contributions/:contributionId/mark',
  summary: 'Marks a single contribution',
  params: ContributionParams,
  body: ContributionMarkWrite,
  answer: Done,
})

export const nodToContribution = endpoint({
  method: 'PUT',
  path: '/api/contributions/:contributionId/nod',
  summary: 'Nods to a contribution, or takes the nod back',
  params: ContributionParams,
  body: NodWrite,
  answer: NodAnswer,
})

export const keepOnTop = endpoint({
  method: 'PUT',
  path: '/api/contributions/:contributionId/on-top',
  summary: 'Keeps a contribution on top, or lets it go',
  params: ContributionParams,
  body: OnTopWrite,
  answer: Done,
})

export const openForReplies = endpoint({
  method: 'PUT',
  path: '/api/contributions/:contributionId/opened',
  summary: 'Opens a contribution for replies, or closes it',
  params: ContributionParams,
  body: OpenedWrite,
  answer: Done,
})

export const readRevisions = endpoint({
  method: 'GET',
  path: '/api/contributions/:contributionId/revisions',
  summary: 'The earlier texts of a contribution',
  params: ContributionParams,
  answer: Revisions,
})

export const withdrawContribution = endpoint({
  method: 'PUT',
  path: '/api/contributions/:contributionId/withdrawn',
  summary: 'Withdraws a contribution, or brings it back',
  params: ContributionParams,
  body: WithdrawnWrite,
  answer: Done,
})

export const chooseNameInFeeds = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/named-in-feeds',
  summary: "Says whether one's name stands in feeds",
  params: SeminarParams,
  body: NamedWrite,
  answer: Done,
})
