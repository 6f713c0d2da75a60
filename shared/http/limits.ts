/** Bytes of a body of JSON, where its endpoint says nothing else; a document of the longest text stays well below. */
export const LARGEST_BODY = 1_000_000
/** Bytes that are read of somebody who is not signed in. */
export const LARGEST_UNASKED = 20_000
