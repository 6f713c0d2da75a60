import { z } from 'zod'

/** What came back from an archive. */
export const Restored = z.object({
  seminarId: z.uuid(),
  title: z.string(),
  people: z.number().int(),
  contributions: z.number().int(),
})
export type Restored = z.infer<typeof Restored>
export const EraseWrite = z.object({
  name: z.string().trim().max(200), // the person’s name, typed out, because it cannot be undone
  pointing: z.array(z.string().max(80)).max(300).default([]), // keys of places where the given name alone points to them
})
export type EraseWrite = z.infer<typeof EraseWrite>
/** Where the given name stands by itself, in something that is neither to nor by the person. */
export const ErasePreview = z.object({
  places: z.array(
    z.object({
      key: z.string(), // places with the same go or stay together
      what: z.string(),
      before: z.string(),
      exact: z.string(),
      after: z.string(),
    }),
  ),
  count: z.number().int(), // of all places; the first 300 are told
  sharedWith: z.array(z.string()), // others of the seminar with this given name
})
export type ErasePreview = z.infer<typeof ErasePreview>
export const Erased = z.object({ name: z.string() }) // what they are called now
