import { z } from 'zod'
import { CHOICES } from '#core/kinds/wiki/mergePages'
import { AuthorView } from '#shared/contributing/thread'
import { PageDoc, RichDoc } from '#shared/contributing/richDoc'

export const LONGEST_TITLE = 120 // characters
const title = z
  .string()
  .trim()
  .transform(t => t.replace(/\s+/g, ' '))
  .pipe(z.string().min(1, 'Give the page a title.').max(LONGEST_TITLE, 'A title has up to 120 characters.'))
/** See `WikiSettings`. */
export const WikiSettingsBody = z.object({
  keyWords: z.array(title).max(60),
  othersRead: z.enum(['never', 'afterWriting', 'always']),
})
export type WikiSettingsBody = z.infer<typeof WikiSettingsBody>

export const PageParams = z.object({ pageId: z.uuid() })
export const VersionParams = z.object({
  pageId: z.uuid(),
  number: z.coerce.number().int().min(1).max(1_000_000),
})
/** Which group's wiki; left out: one's own, or the class's. */
export const WikiQuery = z.object({ group: z.uuid().optional() })

const Runs = z.array(z.tuple([z.uuid(), z.number().int()]))
export const PageLine = z.object({
  id: z.uuid(),
  title: z.string(),
  parentId: z.uuid().nullable(),
  position: z.number().int(),
  claimedBy: AuthorView.nullable(),
  versions: z.number().int(),
  words: z.number().int(),
  changedAt: z.iso.datetime().nullable(),
  changedBy: AuthorView.nullable(),
  linksTo: z.array(z.string()), // titles, as they are written
  formerKeys: z.array(z.string()),
  openComments: z.number().int(),
  writing: z.array(AuthorView), // others who have it open for writing now
})
export type PageLine = z.infer<typeof PageLine>
/** One wiki as its reader gets it. */
export const WikiView = z.object({
  wikis: z.array(
    z.object({
      groupId: z.uuid().nullable(),
      title: z.string(),
      isOwn: z.boolean(),
      pages: z.number().int(),
    }),
  ), // those of groups that can be read; empty where the class has one
  groupId: z.uuid().nullable(),
  title: z.string(),
  members: z.array(AuthorView),
  may: z.object({ write: z.boolean(), comment: z.boolean() }),
  phase: z.string().nullable(),
  until: z.iso.datetime().nullable(), // what is done now, for this reader
  pages: z.array(PageLine), // in the order of the tree
  suggested: z.array(z.string()), // key words of which there is no page yet
  wanted: z.array(z.object({ title: z.string(), from: z.array(z.uuid()) })), // linked to, but not there
  missing: z.enum(['group', 'hidden']).nullable(), // why there is no wiki to read: the reader is in no group, or the others' are not open
})
export type WikiView = z.infer<typeof WikiView>

export const VersionLine = z.object({
  id: z.uuid(),
  number: z.number().int(),
  base: z.number().int(),
  author: AuthorView,
  savedAt: z.iso.datetime(),
  summary: z.string(),
  words: z.number().int(),
  written: z.number().int(),
  added: z.number().int(),
  removed: z.number().int(),
  moved: z.number().int(),
  restores: z.number().int().nullable(),
})
export type VersionLine = z.infer<typeof VersionLine>
export const PagePassage = z.object({
  exact: z.string().min(1).max(600),
  prefix: z.string().max(64),
  suffix: z.string().max(64),
})
export type PagePassage = z.infer<typeof PagePassage>
export const PageComment = z.object({
  id: z.uuid(),
  parentId: z.uuid().nullable(),
  author: AuthorView,
  html: z.string(),
  shownAt: z.iso.datetime(),
  withdrawn: z.boolean(),
  mayWithdraw: z.boolean(),
  passage: PagePassage.nullable(),
  on: z.number().int().nullable(), // the version it was written on
  resolved: z
    .object({ number: z.number().int(), by: AuthorView, at: z.iso.datetime(), writer: AuthorView })
    .nullable(), // the version that did it, who said so, who wrote it
})
export type PageComment = z.infer<typeof PageComment>
export const PageView = z.object({
  id: z.uuid(),
  title: z.string(),
  html: z.string(),
  doc: z.unknown(),
  number: z.number().int(), // 0: nothing is written yet
  versions: z.array(VersionLine), // newest first
  comments: z.array(PageComment),
  draft: z
    .object({
      doc: z.unknown(),
      base: z.number().int(),
      savedAt: z.iso.datetime(),
      version: z.number().int(),
    })
    .nullable(),
})
export type PageView = z.infer<typeof PageView>
export const VersionView = z.object({
  number: z.number().int(),
  doc: z.unknown(),
  html: z.string(),
  origins: Runs,
})
export type VersionView = z.infer<typeof VersionView>

export const PageMake = z.object({
  id: z.uuid(),
  groupId: z.uuid().nullable(),
  title,
  parentId: z.uuid().nullable(),
})
export type PageMake = z.infer<typeof PageMake>
export const PagePatch = z.object({
  title: title.optional(),
  place: z.object({ parentId: z.uuid().nullable(), beforeId: z.uuid().nullable() }).optional(),
})
export type PagePatch = z.infer<typeof PagePatch>
export const ClaimWrite = z.object({ claimed: z.boolean() })
export const RemovedWrite = z.object({ removed: z.boolean() })
export const WritingWrite = z.object({ writing: z.boolean() })
export const PageDraftWrite = z.object({
  doc: PageDoc,
  base: z.number().int().min(0),
  baseVersion: z.number().int().nullable(),
})
export type PageDraftWrite = z.infer<typeof PageDraftWrite>
export const PageDraftAnswer = z.object({ version: z.number().int(), savedAt: z.iso.datetime() })
/** A place that two changed differently, side by side. */
export const Overlap = z.object({ was: z.string(), mine: z.string(), theirs: z.string() })
export type Overlap = z.infer<typeof Overlap>
export const VersionWrite = z.object({
  key: z.uuid(),
  doc: PageDoc,
  base: z.number().int().min(0),
  summary: z.string().trim().max(200, 'A summary is one line.').default(''),
  actsOn: z.array(z.uuid()).max(200).default([]), // comments this version acts on
  chosen: z
    .array(Overlap.extend({ choice: z.enum(CHOICES) }))
    .max(2000)
    .default([]), // what the writer chose, for each place as it was shown
})
export type VersionWrite = z.infer<typeof VersionWrite>
export const VersionSaved = z.object({
  number: z.number().int(),
  id: z.uuid(),
  joined: z.boolean(), // with what others had saved meanwhile
  isNew: z.boolean(), // false: what was kept of both texts is what stood already
})
export type VersionSaved = z.infer<typeof VersionSaved>
/** Beside the problem where others changed the same words: every place, side by side. */
export const Overlaps = z.object({ by: z.array(z.string()), overlaps: z.array(Overlap) })
export type Overlaps = z.infer<typeof Overlaps>
export const RestoreWrite = z.object({ key: z.uuid(), base: z.number().int() })
export const PageCommentWrite = z.object({
  key: z.uuid(),
  doc: RichDoc,
  passage: PagePassage.nullable().default(null),
  parentId: z.uuid().nullable().default(null),
})
export type PageCommentWrite = z.infer<typeof PageCommentWrite>
export const ResolvedWrite = z.object({ number: z.number().int().nullable() })
export const Made = z.object({ id: z.uuid() })
export const WikiTakeQuery = WikiQuery.extend({ as: z.enum(['site', 'markdown']) })
export const WikiImport = z.object({
  key: z.uuid(),
  groupId: z.uuid().nullable(),
  files: z
    .array(z.object({ name: z.string().max(300), text: z.string().max(1_000_000) }))
    .min(1)
    .max(100),
  // pictures that came with the files and were uploaded before, by their path beside the pages
  pictures: z
    .array(z.object({ path: z.string().max(300), fileId: z.uuid() }))
    .max(200)
    .default([]),
})
export type WikiImport = z.infer<typeof WikiImport>
export const WikiImported = z.object({
  pages: z.array(z.object({ id: z.uuid(), title: z.string(), isNew: z.boolean() })),
  left: z.array(z.string()), // what a page has no place for, in sentences
})
export type WikiImported = z.infer<typeof WikiImported>

/** What each member put in. */
export const WikiShares = z.object({
  words: z.number().int(), // that stand
  members: z.array(
    z.object({
      member: AuthorView,
      written: z.number().int(),
      standing: z.number().int(),
      edits: z.number().int(),
      made: z.number().int(),
      received: z.number().int(),
      actedOn: z.number().int(),
    }),
  ),
  others: z.number().int(), // words that stand and are nobody's of them: staff's, or of somebody who left
  authors: z.array(
    z.object({ origin: z.uuid(), author: AuthorView, pageId: z.uuid(), number: z.number().int() }),
  ), // of every version whose words stand or stood
})
export type WikiShares = z.infer<typeof WikiShares>
