import { createStore, del, entries, get, set } from 'idb-keyval'
import type { TermDetail } from '#shared/contributing/term'
import type * as contributingEndpoints from '#shared/contributing/endpoints'
import type { InputOf } from '~/composables/shell/useApi'
import type { Kept, Shelf } from '~/autosave/autosave'
import type { RichNode } from '#core/contributing/richText'

/** A text left in this browser, with the version of the draft it was begun from. */
export interface KeptText {
  readonly at: number
  readonly doc: RichNode
  readonly title: string | null
  readonly term?: TermDetail | null
  readonly baseVersion: number | null
}
type PostBody = InputOf<typeof contributingEndpoints.postContribution>['body']
/** A post that could not be sent yet. Its key makes sure that it is posted once, however often it is tried. */
export interface WaitingPost {
  readonly path: string // of the endpoint that posts, as earlier versions of Jovrel kept it, too
  readonly body: PostBody
  readonly shelf: string
}

// opened at the first use: there is no such thing on the server
const LAST = 'jovrel:'
let texts: ReturnType<typeof createStore> | undefined
let posts: ReturnType<typeof createStore> | undefined
const textStore = () => (texts ??= createStore('jovrel-texts', 'texts'))
const postStore = () => (posts ??= createStore('jovrel-posts', 'posts'))

/**
 * Texts kept in the browser (IndexedDB): they survive a closed tab and a lost connection. What is typed in the very last
 * instant is caught by the local storage, which keeps it before the key is through; the newer of the two is the text.
 * A browser that keeps nothing does no harm.
 */
export function keepText(shelf: string, text: Omit<KeptText, 'at'>): Promise<void> {
  return put(shelf, { ...text, at: Date.now() })
}
function put(shelf: string, kept: KeptText): Promise<void> {
  try {
    localStorage.setItem(LAST + shelf, JSON.stringify(kept))
  } catch {
    /* full, or not allowed: the other keeps it */
  }
  return set(shelf, kept, textStore()).catch(() => {})
}
export async function keptText(shelf: string): Promise<KeptText | undefined> {
  const kept = await get<KeptText>(shelf, textStore()).catch(() => undefined)
  const last = lastInstant(shelf)
  return last && (!kept || last.at >= kept.at) ? last : kept
}
export function forgetText(shelf: string): Promise<void> {
  try {
    localStorage.removeItem(LAST + shelf)
  } catch {
    /* not allowed: nothing is there */
  }
  return del(shelf, textStore()).catch(() => {})
}
function lastInstant(shelf: string): KeptText | undefined {
  try {
    return (JSON.parse(localStorage.getItem(LAST + shelf) ?? 'null') as KeptText | null) ?? undefined
  } catch {
    return undefined
  }
}

/** The same as a shelf of an autosave: what another tab has put since is left there. */
export function textShelf<T>(
  shelf: string,
  form: {
    readonly write: (kept: Kept<T>) => Omit<KeptText, 'at'>
    readonly read: (text: KeptText, now: Kept<T>) => Kept<T>
  },
): Shelf<T> {
  let own: number | null = null // when this tab has put what is there, or when it was put that this tab has taken
  return {
    put: kept => {
      own = Date.now()
      void put(shelf, { ...form.write(kept), at: own })
    },
    take: async now => {
      const text = await keptText(shelf)
      own = text?.at ?? null
      return text ? form.read(text, now) : null
    },
    drop: () => {
      const mine = own
      void keptText(shelf).then(text => {
        if (text && text.at === mine) void forgetText(shelf)
      })
    },
  }
}

export const queuePost = (post: WaitingPost): Promise<void> => set(post.body.key, post, postStore())
export const waitingPosts = async (): Promise<WaitingPost[]> =>
  (await entries<string, WaitingPost>(postStore()).catch(() => [])).map(([, post]) => post)
export const forgetPost = (key: string): Promise<void> => del(key, postStore()).catch(() => {})

/** The activity a waiting post belongs to. */
export const activityOf = (post: WaitingPost): string => post.path.split('/')[3]!
