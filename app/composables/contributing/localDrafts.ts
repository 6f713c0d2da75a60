import { createStore, del, delMany, entries, get, keys, set } from 'idb-keyval'
import type { TermDetail } from '#shared/kinds/lexicon/term'
import type * as contributingEndpoints from '#shared/contributing/endpoints'
import type { InputOf } from '~/composables/shell/useApi'
import type { Kept, LocalDraft } from '~/autosave/autosave'
import { unlessLeft } from '~/autosave/leaving'
import { ownedKey, ownerNow } from '~/autosave/ownedKey'
import { ownedStorage } from '~/autosave/ownedStorage'
import type { RichNode } from '#core/contributing/richText'

/** A text left in this browser, with the version of the draft it was begun from. */
export interface KeptText {
  readonly at: number
  readonly doc: RichNode
  readonly title: string | null
  readonly term?: TermDetail | null
  readonly baseVersion: number | null
  readonly unanswered?: ReadonlyArray<Pick<KeptText, 'doc' | 'title' | 'term'>> | undefined // sent, and no answer was heard
}
type PostBody = InputOf<typeof contributingEndpoints.postContribution>['body']
/** A post that could not be sent yet. Its key makes sure that it is posted once, however often it is tried. */
export interface WaitingPost {
  readonly path: string // of the endpoint that posts, as earlier versions of Jovrel kept it, too
  readonly body: PostBody
  readonly shelf: string // the key of its draft; the name it was stored under by earlier versions
  readonly personId?: string | null // whose words they are; earlier versions did not say
  readonly at?: number // milliseconds since 1970 at which it began to wait
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
export async function keepText(draftKey: string, text: Omit<KeptText, 'at'>): Promise<void> {
  put(draftKey, { ...text, at: Date.now() })
}
/** @returns whether it is kept already; the other of the two keeps it a moment later, or not */
function put(draftKey: string, kept: KeptText): boolean {
  set(ownedKey(draftKey), kept, textStore()).catch(() => {})
  return ownedStorage.put(LAST + draftKey, JSON.stringify(kept))
}
export async function keptText(draftKey: string): Promise<KeptText | undefined> {
  const kept = await get<KeptText>(ownedKey(draftKey), textStore()).catch(() => undefined)
  const last = lastInstant(draftKey)
  return last && (!kept || last.at >= kept.at) ? last : kept
}
export function forgetText(draftKey: string): Promise<void> {
  ownedStorage.drop(LAST + draftKey)
  return del(ownedKey(draftKey), textStore()).catch(() => {})
}
const lastInstant = (draftKey: string) => ownedStorage.readJson(LAST + draftKey) as KeptText | null // as it was put

/** Draft keys of the texts of who is signed in. */
export async function ownTexts(): Promise<string[]> {
  const stored = await keys<string>(textStore()).catch(() => [])
  return stored.flatMap(key => {
    const [draftKey] = key.split('@')
    return draftKey && ownedKey(draftKey) === key ? [draftKey] : []
  })
}
export async function forgetOwnTexts(): Promise<void> {
  await delMany((await ownTexts()).map(ownedKey), textStore()).catch(() => {})
}

/** The same as a draftKey of an autosave: what another tab has put since is left there. */
export function textDraft<T>(
  draftKey: string,
  form: {
    readonly write: (kept: Kept<T>) => Omit<KeptText, 'at'>
    readonly read: (text: KeptText, now: Kept<T>) => Kept<T>
  },
): LocalDraft<T> {
  let own: number | null = null // when this tab has put what is there, or when it was put that this tab has taken
  function putOwn(kept: Kept<T>): boolean {
    own = Date.now()
    return put(draftKey, { ...form.write(kept), at: own })
  }
  function dropIfStill(mine: number | null) {
    void keptText(draftKey).then(text => {
      if (text && text.at === mine) void forgetText(draftKey)
    })
  }
  return {
    put: putOwn,
    update: kept => {
      if (own !== null && lastInstant(draftKey)?.at === own) putOwn(kept)
    },
    take: async now => {
      const text = await keptText(draftKey)
      own = text?.at ?? null
      return text ? form.read(text, now) : null
    },
    drop: () => dropIfStill(own),
    stored: () => {
      const mine = own
      unlessLeft(() => dropIfStill(mine))
    },
  }
}

/** @returns whether this browser keeps it, and it will be sent from here */
export const queuePost = (post: Omit<WaitingPost, 'personId' | 'at'>): Promise<boolean> =>
  set(post.body.key, { ...post, personId: ownerNow(), at: Date.now() }, postStore()).then(
    () => true,
    () => false,
  )
/** Posts of who is signed in: another's wait until they are back. */
export const waitingPosts = async (): Promise<WaitingPost[]> =>
  (await entries<string, WaitingPost>(postStore()).catch(() => []))
    .map(([, post]) => post)
    .filter(post => (post.personId ?? null) === ownerNow())
/** Forgets what was posted of a draft; what was typed since stays. */
export async function forgetPosted(post: WaitingPost): Promise<void> {
  const text = await keptText(post.shelf)
  if (!text || post.at === undefined || text.at <= post.at) await forgetText(post.shelf)
}
export const forgetPost = (key: string): Promise<void> => del(key, postStore()).catch(() => {})

/** The activity a waiting post belongs to. */
export const activityOf = (post: WaitingPost): string => post.path.split('/')[3]!
