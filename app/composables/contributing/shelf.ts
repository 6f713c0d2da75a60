import { createStore, del, entries, get, set } from 'idb-keyval'
import type { RichNode } from '#core/contributing/richText'

/** A text left in this browser, with the version of the draft it was begun from. */
export interface KeptText { readonly doc: RichNode, readonly title: string | null, readonly baseVersion: number | null }
/** A post that could not be sent yet. Its key makes sure that it is posted once, however often it is tried. */
export interface WaitingPost { readonly path: string, readonly body: Readonly<Record<string, unknown>> & { readonly key: string }, readonly shelf: string }

// opened at the first use: there is no such thing on the server
let texts: ReturnType<typeof createStore> | undefined
let posts: ReturnType<typeof createStore> | undefined
const textStore = () => texts ??= createStore('jovrel-texts', 'texts')
const postStore = () => posts ??= createStore('jovrel-posts', 'posts')

/** Texts kept in the browser (IndexedDB): they survive a closed tab and a lost connection. A browser that keeps nothing does no harm. */
export const keepText = (shelf: string, text: KeptText): Promise<void> => set(shelf, text, textStore()).catch(() => {})
export const keptText = (shelf: string): Promise<KeptText | undefined> => get<KeptText>(shelf, textStore()).catch(() => undefined)
export const forgetText = (shelf: string): Promise<void> => del(shelf, textStore()).catch(() => {})

export const queuePost = (post: WaitingPost): Promise<void> => set(post.body.key, post, postStore())
export const waitingPosts = async (): Promise<WaitingPost[]> => (await entries<string, WaitingPost>(postStore()).catch(() => [])).map(([, post]) => post)
export const forgetPost = (key: string): Promise<void> => del(key, postStore()).catch(() => {})
