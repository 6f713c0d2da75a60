import { z } from 'zod'
import { languageCodes } from '#core/language/languages'
import { NOTE_KINDS, TEXT_FORMS } from '#core/kinds/reading/reading'

const offset = z.number().int().min(0).max(5_000_000)
/** A passage as it is kept: its words with what stands around them, and where it stood. See `TextAnchor`. */
export const PassageBody = z.object({
  exact: z.string().min(1).max(4000, 'Choose up to 4,000 characters.'),
  prefix: z.string().max(64),
  suffix: z.string().max(64),
  start: offset,
  end: offset,
})
const share = z.number().min(0).max(1)
export const AreaBody = z.object({ x: share, y: share, width: share, height: share })
const seconds = z.number().min(0).max(1_000_000)
const TimeBody = z.tuple([seconds, seconds]).refine(([from, to]) => to >= from, 'These times run backwards.')
const part = z.number().int().min(1).max(5000)

/** What a note in a margin is besides its words. */
export const NoteDetail = z.object({
  kind: z.enum(NOTE_KINDS),
  part,
  passage: PassageBody.nullable(),
  area: AreaBody.nullable(), // of a page without words
  time: TimeBody.nullable(),
  tags: z
    .array(z.string().trim().min(1).max(40, 'A tag has up to 40 characters.'))
    .max(8, 'Eight tags are the most.'),
  to: z.object({ part, passage: PassageBody }).nullable(), // of a link: the passage it leads to
})
export type NoteDetail = z.infer<typeof NoteDetail>
const Stretch = z.object({ start: offset, end: offset })
/** A note as its readers get it: with where its passage stands in the newest version of the text. */
export const NoteView = NoteDetail.extend({
  at: Stretch.nullable(),
  toAt: Stretch.nullable(),
  how: z.enum(['here', 'elsewhere', 'nearly', 'lost']),
  settled: z.boolean(),
})
export type NoteView = z.infer<typeof NoteView>

export const PartView = z.object({
  number: part,
  label: z.string(),
  heading: z.string().nullable(),
  start: offset,
  end: offset,
  words: z.number().int(),
  aspect: z.number().nullable(),
  drawnOnly: z.boolean(),
  time: z.tuple([z.number(), z.number()]).nullable(),
})
export type PartView = z.infer<typeof PartView>

/** A text as it is set in one activity. */
const PartHtml = z.object({ number: z.number().int(), html: z.string() })
export const ReadingView = z.object({
  text: z
    .object({
      id: z.uuid(),
      title: z.string(),
      credit: z.string(),
      form: z.enum(TEXT_FORMS),
      version: z.number().int(),
      language: z.enum(languageCodes).nullable(), // null: the page's
      words: z.number().int(),
      file: z.object({ url: z.string(), type: z.string() }).nullable(),
      parts: z.array(PartView),
      cues: z.array(
        z.object({
          from: z.number(),
          to: z.number(),
          voice: z.string().nullable(),
          text: z.string(),
          start: offset,
          end: offset,
        }),
      ),
    })
    .nullable(), // null: none is chosen yet
  from: z.number().int(),
  to: z.number().int().nullable(),
  writeFirst: z.enum(['page', 'none']),
  first: z.array(PartHtml), // of an article: the sections that are read first
  groups: z.array(z.object({ id: z.uuid(), memberIds: z.array(z.uuid()) })), // to choose one's own group's notes in a common margin
})
export type ReadingView = z.infer<typeof ReadingView>
export const PartsQuery = z.object({
  from: z.coerce.number().int().min(1).max(5000),
  to: z.coerce.number().int().min(1).max(5000),
})
export const PartsAnswer = z.object({ parts: z.array(PartHtml) })
export const SettledWrite = z.object({ settled: z.boolean() })

// -- the library
export const TextParams = z.object({ seminarId: z.uuid(), textId: z.uuid() })
const upload = {
  name: z.string().trim().min(1).max(200),
  base64: z.string().min(1, 'This file is empty.'),
  transcript: z.string().max(2_000_000).nullable().default(null),
}
export const TextAdd = z.object({
  key: z.uuid(),
  id: z.uuid(),
  title: z.string().trim().max(200).default(''),
  credit: z.string().trim().max(300).default(''),
  ...upload,
})
export type TextAdd = z.infer<typeof TextAdd>
export const TextVersionAdd = z.object({ key: z.uuid(), ...upload })
export type TextVersionAdd = z.infer<typeof TextVersionAdd>
export const TextChange = z.object({
  title: z.string().trim().min(1, 'Give the text a title.').max(200).optional(),
  credit: z.string().trim().max(300).optional(),
  archived: z.boolean().optional(),
  language: z.enum(languageCodes, 'Choose one of the languages of the list.').nullable().optional(), // null: the page's
})
export type TextChange = z.infer<typeof TextChange>
export const TextAdded = z.object({
  id: z.uuid(),
  title: z.string(),
  form: z.enum(TEXT_FORMS),
  parts: z.number().int(),
  remarks: z.array(z.string()),
})
/** What a new version did to the notes: none is taken away; what was not found is listed with its words. */
export const VersionAdded = z.object({
  number: z.number().int(),
  remarks: z.array(z.string()),
  kept: z.number().int(),
  moved: z.number().int(),
  nearly: z.number().int(),
  lost: z.array(
    z.object({
      id: z.uuid(),
      activityId: z.uuid(),
      activity: z.string(),
      author: z.string(),
      exact: z.string(),
    }),
  ),
})
export type VersionAdded = z.infer<typeof VersionAdded>
export const TextsView = z.object({
  mayManage: z.boolean(),
  texts: z.array(
    z.object({
      id: z.uuid(),
      title: z.string(),
      credit: z.string(),
      form: z.enum(TEXT_FORMS),
      version: z.number().int(),
      language: z.enum(languageCodes).nullable(), // null: the page's
      parts: z.number().int(),
      words: z.number().int(),
      scans: z.number().int(),
      minutes: z.number().nullable(),
      usedBy: z.array(z.object({ id: z.uuid(), title: z.string() })),
      notes: z.number().int(),
    }),
  ),
})
export type TextsView = z.infer<typeof TextsView>
/** Books of the supplier, each with its chapters and the pages they have. */
export const SupplierView = z.object({
  supplier: z.string(),
  books: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      author: z.string(),
      summary: z.string(),
      parts: z.array(
        z.object({
          number: z.number().int(),
          label: z.string(),
          heading: z.string().nullable(),
          words: z.number().int(),
        }),
      ),
    }),
  ),
})
export type SupplierView = z.infer<typeof SupplierView>
export const SupplierTake = z
  .object({
    key: z.uuid(),
    id: z.uuid(),
    bookId: z.string().min(1).max(200),
    from: z.number().int().min(1),
    to: z.number().int().min(1),
  })
  .refine(t => t.to >= t.from, { message: 'The last page comes before the first.', path: ['to'] })
export type SupplierTake = z.infer<typeof SupplierTake>

// -- the open standard
export const AnnotationsQuery = z.object({ of: z.enum(['all', 'mine']).default('all') })
export const AnnotationsTake = z.object({
  key: z.uuid(),
  json: z.string().min(1, 'This file is empty.').max(8_000_000),
  trial: z.boolean(),
})
export type AnnotationsTake = z.infer<typeof AnnotationsTake>
export const AnnotationsTaken = z.object({
  notes: z.number().int(),
  replies: z.number().int(),
  refused: z.array(z.object({ id: z.string().nullable(), why: z.string() })),
})
// the token is shown once, when it is made
export const ToolsAddress = z.object({ address: z.string().nullable(), token: z.string().nullable() })
export const TextFound = z.object({
  places: z.array(z.object({ start: z.number().int(), end: z.number().int() })),
  more: z.boolean(),
})
