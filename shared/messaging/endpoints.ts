import { endpoint } from '../http/endpoint'
import { Done } from '../http/done'
import {
  MessageDraftQuery,
  MessageDraft,
  MessageReply,
  MessageThread,
  RuleList,
  RuleMade,
  RuleParams,
  RuleSwitch,
  RuleWrite,
  SendMessages,
  SendingParams,
  Sent,
  TakenBack,
  ThreadList,
  ThreadListQuery,
  ThreadParams,
} from './messages'
import { Mailroom, NoticeList } from './notices'
import { SeminarParams } from '../people/seminar'

export const readMailroom = endpoint({
  method: 'GET',
  path: '/api/mailroom',
  summary: 'All mail that was sent, where no mail server is set',
  answer: Mailroom,
})

export const readMessageDraft = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/messages/draft',
  summary: 'Who a message would reach, and its words',
  params: SeminarParams,
  query: MessageDraftQuery,
  answer: MessageDraft,
})

export const readMessageThreads = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/messages',
  summary: "One's conversations",
  params: SeminarParams,
  query: ThreadListQuery,
  answer: ThreadList,
})

export const sendMessages = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/messages',
  summary: 'Sends a message to each of several people',
  params: SeminarParams,
  body: SendMessages,
  largest: 8_000_000,
  answer: Sent,
})

export const deleteRule = endpoint({
  method: 'DELETE',
  path: '/api/seminars/:seminarId/messages/rules/:ruleId',
  summary: 'Deletes a rule for messages',
  params: RuleParams,
  answer: RuleMade,
})

export const saveRule = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/messages/rules/:ruleId',
  summary: 'Changes a rule for messages',
  params: RuleParams,
  body: RuleWrite,
  answer: RuleMade,
})

export const switchRule = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/messages/rules/:ruleId/on',
  summary: 'Switches a rule for messages on or off',
  params: RuleParams,
  body: RuleSwitch,
  answer: RuleMade,
})

export const readRules = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/messages/rules',
  summary: 'The rules by which messages are sent',
  params: SeminarParams,
  answer: RuleList,
})

export const makeRule = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/messages/rules',
  summary: 'Makes a rule for messages',
  params: SeminarParams,
  body: RuleWrite,
  answer: RuleMade,
})

export const takeMessagesBack = endpoint({
  method: 'DELETE',
  path: '/api/seminars/:seminarId/messages/sendings/:sendingId',
  summary: 'Takes messages back while they can be',
  params: SendingParams,
  answer: TakenBack,
})

export const readMessageThread = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/messages/threads/:threadId',
  summary: 'One conversation',
  params: ThreadParams,
  answer: MessageThread,
})

export const replyToMessage = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/messages/threads/:threadId/replies',
  summary: 'Replies in a conversation',
  params: ThreadParams,
  body: MessageReply,
  answer: MessageThread,
})

export const readNotices = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/notices',
  summary: "One's notices",
  params: SeminarParams,
  answer: NoticeList,
})

export const recordNoticesSeen = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/notices/seen',
  summary: "Records that one has seen one's notices",
  params: SeminarParams,
  answer: Done,
})
