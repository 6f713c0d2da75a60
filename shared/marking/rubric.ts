import { z } from 'zod'
import { MOST_OUTCOMES } from '#core/marking/rubric/rubricDraft'
import { RubricView } from '../contributing/activity'

export const RubricParams = z.object({ rubricId: z.uuid() })
const Level = z.object({
  title: z.string().trim().max(120),
  points: z.number().int().min(0).max(1_000_000),
  pointsFrom: z.number().int().min(0).max(1_000_000).nullable(),
  descriptor: z.string().trim().max(2000, 'A descriptor takes up to 2,000 characters.'),
})
export const RubricBody = z.object({
  title: z.string().trim().min(1, 'Write what the rubric is called.').max(200),
  criteria: z
    .array(
      z.object({
        title: z.string().trim().max(200),
        scope: z.enum(['own', 'group']),
        weight: z.number().int().min(1).max(100),
        suggestFrom: z.enum(['timeliness']).nullable(),
        outcomes: z
          .array(z.string().max(200))
          .max(MOST_OUTCOMES, 'A criterion is evidence of up to twelve outcomes.'),
        levels: z.array(Level).max(10, 'A criterion takes up to ten levels.'),
      }),
    )
    .max(20, 'A rubric takes up to twenty criteria.'),
})
export type RubricBody = z.infer<typeof RubricBody>

export const LibraryRubric = z.object({
  rubric: RubricView,
  revision: z.number().int(), // counted at every save
  points: z.number().int(),
  marksGiven: z.number().int(), // marks under this version
  earlier: z.array(z.object({ version: z.number().int(), marks: z.number().int() })), // older versions and the marks that stay with them
  usedBy: z.array(z.object({ id: z.uuid(), title: z.string(), version: z.number().int() })),
})
export type LibraryRubric = z.infer<typeof LibraryRubric>
export const OutcomeView = z.object({
  id: z.uuid(),
  identifier: z.string(),
  code: z.string(),
  statement: z.string(),
  version: z.number().int(),
  retired: z.boolean(), // offered for criteria no more
  criteria: z.number().int(),
})
export type OutcomeView = z.infer<typeof OutcomeView>
export const LibraryView = z.object({
  rubrics: z.array(LibraryRubric),
  outcomes: z.array(OutcomeView),
  mayManage: z.boolean(),
  // activities kept to be planned again
  templates: z.array(z.object({ id: z.uuid(), kind: z.string(), title: z.string(), summary: z.string() })),
})
export type LibraryView = z.infer<typeof LibraryView>

export const RubricMake = z.object({ key: z.uuid(), rubric: RubricBody })
/** `baseRevision`: the save it was changed from. */
export const RubricWrite = z.object({ key: z.uuid(), baseRevision: z.number().int(), rubric: RubricBody })
export const RubricMade = z.object({
  id: z.uuid(),
  versionId: z.uuid(),
  version: z.number().int(),
  revision: z.number().int(),
})
export const RubricImport = z.object({
  key: z.uuid(),
  name: z.string().max(255),
  base64: z.string().max(2_000_000),
})
export const RubricImported = z.object({
  rubrics: z.number().int(),
  outcomes: z.number().int(),
  passedOver: z.array(z.string()),
})
export const RubricExport = z.object({ name: z.string(), type: z.string(), text: z.string() })
export const ExportQuery = z.object({ form: z.enum(['json', 'csv']) })
