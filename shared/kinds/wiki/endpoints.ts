import { endpoint } from '#shared/http/endpoint'
import { ActivityParams } from '#shared/planning/activityParams'
import { ContributionParams } from '#shared/contributing/thread'
import { Done } from '#shared/http/done'
import {
  ClaimWrite,
  Made,
  PageCommentWrite,
  PageDraftAnswer,
  PageDraftWrite,
  PageMake,
  PageParams,
  PagePatch,
  PageView,
  RemovedWrite,
  ResolvedWrite,
  RestoreWrite,
  VersionParams,
  VersionSaved,
  VersionView,
  VersionWrite,
  WikiImport,
  WikiImported,
  WikiQuery,
  WikiShares,
  WikiTakeQuery,
  WikiView,
  WritingWrite,
} from './wiki'

export const downloadWiki = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/wiki/export',
  logged: 'exported',
  summary: 'The pages of a wiki as a file',
  params: ActivityParams,
  query: WikiTakeQuery,
  file: ['application/zip'],
})

export const importPages = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/wiki/import',
  summary: 'Imports pages into a wiki from Markdown files, with their pictures',
  params: ActivityParams,
  body: WikiImport,
  largest: 8_000_000,
  answer: WikiImported,
})

export const readWiki = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/wiki',
  summary: 'A wiki: its pages and who wrote how much',
  params: ActivityParams,
  query: WikiQuery,
  answer: WikiView,
})

export const makePage = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/wiki/pages',
  summary: 'Makes a page of a wiki',
  params: ActivityParams,
  body: PageMake,
  answer: Made,
})

export const readWikiShares = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/wiki/shares',
  summary: 'Who wrote how much of a wiki',
  params: ActivityParams,
  query: WikiQuery,
  answer: WikiShares,
})

export const resolveComment = endpoint({
  method: 'PUT',
  path: '/api/contributions/:contributionId/resolved',
  summary: 'Resolves a comment on a page by a version',
  params: ContributionParams,
  body: ResolvedWrite,
  answer: Done,
})

export const claimPage = endpoint({
  method: 'PUT',
  path: '/api/pages/:pageId/claimed',
  summary: 'Says that one works on a page, or no longer',
  params: PageParams,
  body: ClaimWrite,
  answer: Done,
})

export const commentOnPage = endpoint({
  method: 'POST',
  path: '/api/pages/:pageId/comments',
  summary: 'Comments on a page',
  params: PageParams,
  body: PageCommentWrite,
  answer: Made,
})

export const discardPageDraft = endpoint({
  method: 'DELETE',
  path: '/api/pages/:pageId/draft',
  summary: "Discards one's draft of a page",
  params: PageParams,
  answer: Done,
})

export const savePageDraft = endpoint({
  method: 'PUT',
  path: '/api/pages/:pageId/draft',
  summary: "Keeps one's draft of a page",
  params: PageParams,
  body: PageDraftWrite,
  largest: 4_000_000,
  answer: PageDraftAnswer,
})

export const readPage = endpoint({
  method: 'GET',
  path: '/api/pages/:pageId',
  summary: 'A page of a wiki',
  params: PageParams,
  answer: PageView,
})

export const changePage = endpoint({
  method: 'PATCH',
  path: '/api/pages/:pageId',
  summary: 'Changes the title or the place of a page',
  params: PageParams,
  body: PagePatch,
  answer: Done,
})

export const removePage = endpoint({
  method: 'PUT',
  path: '/api/pages/:pageId/removed',
  summary: 'Removes a page, or brings it back',
  params: PageParams,
  body: RemovedWrite,
  answer: Done,
})

export const readPageVersion = endpoint({
  method: 'GET',
  path: '/api/pages/:pageId/versions/:number',
  summary: 'One version of a page',
  params: VersionParams,
  answer: VersionView,
})

export const restorePageVersion = endpoint({
  method: 'POST',
  path: '/api/pages/:pageId/versions/:number/restore',
  summary: 'Makes an earlier version the newest',
  params: VersionParams,
  body: RestoreWrite,
  answer: VersionSaved,
})

export const savePageVersion = endpoint({
  method: 'POST',
  path: '/api/pages/:pageId/versions',
  summary: 'Saves a new version of a page; both texts are kept where they differ',
  params: PageParams,
  body: VersionWrite,
  largest: 4_000_000,
  answer: VersionSaved,
})

export const showWriting = endpoint({
  method: 'PUT',
  path: '/api/pages/:pageId/writing',
  summary: 'Shows others that one is writing on a page',
  params: PageParams,
  body: WritingWrite,
  answer: Done,
})
