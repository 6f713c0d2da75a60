import { z } from 'zod'

/** A talk to take along, as its reader gets it. */
export const TalkExportQuery = z.object({ as: z.enum(['html', 'md', 'json']) })
export type TalkExportForm = z.infer<typeof TalkExportQuery>['as']
export const TalkExport = z.object({ name: z.string(), type: z.string(), text: z.string() })
export type TalkExport = z.infer<typeof TalkExport>

// `named`: the reader's own name may stand in feeds
export const FeedView = z.object({ address: z.string().nullable(), named: z.boolean() })
export type FeedView = z.infer<typeof FeedView>
export const NamedWrite = z.object({ named: z.boolean() })
