// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Endpoint } from '#shared/http/endpoint'
import type { RichNode } from '#core/contributing/richText'
import { withSetup } from '~/testing/withSetup'
import { setOwner } from '~/autosave/ownedKey'
import { forgetPosted, keepText, keptText, queuePost, waitingPosts } from './localDrafts'
import { useDraft } from './useDraft'

const PAUSE = 700
const doc = (text: string): RichNode => ({
  type: 'doc',
  content: [{ type: 'paragraph', content: text === '' ? [] : [{ type: 'text', text }] }],
})

/** One draft and what is posted, as the server keeps them. */
const server = {
  draft: null as { doc: unknown; version: number } | null,
  posted: new Map<string, unknown>(), // by key
  status: 200,
  isSlow: false,
  waiting: [] as Array<() => void>,
}
const browser = { texts: new Map<string, unknown>(), posts: new Map<string, unknown>() }

// the browser's database: idb-keyval over two maps
vi.mock('idb-keyval', () => ({
  createStore: (name: string) => (name === 'jovrel-texts' ? browser.texts : browser.posts),
  get: async (key: string, store: Map<string, unknown>) => store.get(key),
  set: async (key: string, value: unknown, store: Map<string, unknown>) => void store.set(key, value),
  del: async (key: string, store: Map<string, unknown>) => void store.delete(key),
  entries: async (store: Map<string, unknown>) => [...store.entries()],
}))

vi.mock('../shell/useApi', async original => {
  const { ApiProblem } = await original<typeof import('../shell/useApi')>()
  const refuse = (status: number, code: string, more: object = {}) =>
    new ApiProblem({ type: 'about:blank', title: code, status, code, detail: `${code}.`, ...more })
  let last = 0
  return {
    ApiProblem,
    newKey: () => `key ${++last}`,
    useApi: () => ({
      call: async (
        { method, path }: Endpoint,
        { body }: { body: { doc: unknown; key: string; baseVersion: number | null } },
      ) => {
        if (server.isSlow) await new Promise<void>(resolve => server.waiting.push(resolve))
        if (server.status === 0) throw refuse(0, 'unreached')
        if (server.status === 422) throw refuse(422, 'contract', { fields: { title: 'Give it a title.' } })
        if (path.endsWith('/contributions')) {
          server.posted.set(body.key, body.doc)
          server.draft = null
          return { id: 'posted', state: 'shown' }
        }
        if (method === 'DELETE') {
          server.draft = null
          return { done: true }
        }
        if ((server.draft?.version ?? null) !== body.baseVersion)
          throw refuse(409, 'changedMeanwhile', { theirs: { ...server.draft, title: null, files: [] } })
        server.draft = { doc: body.doc, version: (server.draft?.version ?? 0) + 1 }
        return { ...server.draft }
      },
    }),
  }
})

describe('a draft', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    localStorage.clear()
    browser.texts.clear()
    browser.posts.clear()
    Object.assign(server, { draft: null, posted: new Map(), status: 200, isSlow: false, waiting: [] })
    vi.stubGlobal('navigator', { onLine: true })
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
    setOwner(null)
  })
  const open = () => withSetup(() => useDraft({ activityId: 'a', parentId: null }, null, ref(null)))
  const settled = () => vi.advanceTimersByTimeAsync(0)
  const pause = () => vi.advanceTimersByTimeAsync(PAUSE)

  it('is kept at every key and stored at the pause', async () => {
    const { result: draft } = open()
    expect(draft.state.value).toBe('empty')
    draft.write(doc('The quay'))
    expect(draft.state.value).toBe('typing')
    expect(localStorage.length).toBe(1)
    await pause()
    expect(draft.state.value).toBe('saved')
    expect(server.draft).toEqual({ doc: doc('The quay'), version: 1 })
    expect([localStorage.length, browser.texts.size]).toEqual([0, 0])
  })

  it('is nothing as long as nothing is in it', async () => {
    const { result: draft } = open()
    draft.write(doc('a'))
    draft.write(doc(''))
    await pause()
    expect(server.draft).toBeNull()
    expect(draft.state.value).toBe('empty')
  })

  it('is posted with what was typed last, and leaves nothing behind', async () => {
    const { result: draft } = open()
    server.isSlow = true
    draft.write(doc('one'))
    await pause() // a save is on its way
    draft.write(doc('one two'))
    const posting = draft.post()
    server.waiting.shift()!()
    await settled()
    server.waiting.shift()!()
    expect(await posting).toEqual({ id: 'posted', state: 'shown' })
    server.isSlow = false
    await vi.advanceTimersByTimeAsync(120_000)
    expect([...server.posted.values()]).toEqual([doc('one two')])
    expect(server.draft).toBeNull() // no draft comes back after the post
    expect([localStorage.length, browser.texts.size]).toEqual([0, 0])
  })

  it('waits for a connection to be posted, once, and is no draft beside it', async () => {
    const { result: draft } = open()
    server.status = 0
    vi.stubGlobal('navigator', { onLine: false })
    draft.write(doc('from the ferry'))
    expect(await draft.post()).toBeNull()
    expect(draft.state.value).toBe('waiting')
    expect(browser.posts.size).toBe(1)
    server.status = 200
    window.dispatchEvent(new Event('online'))
    await vi.advanceTimersByTimeAsync(120_000)
    expect(server.draft).toBeNull()
  })

  it('that waits for a connection is not sent once its writer types on; nothing newer is lost', async () => {
    const { result: draft } = open()
    server.status = 0
    vi.stubGlobal('navigator', { onLine: false })
    draft.write(doc('from the ferry'))
    await draft.post()
    draft.write(doc('from the ferry, and from the quay'))
    expect(draft.state.value).not.toBe('waiting')
    await settled()
    expect(browser.posts.size).toBe(0)
    server.status = 200
    vi.stubGlobal('navigator', { onLine: true })
    await draft.post()
    expect([...server.posted.values()]).toEqual([doc('from the ferry, and from the quay')])
  })

  it('is another person’s in the same browser: neither shown nor sent to whoever signs in next', async () => {
    setOwner('liv')
    const first = open()
    server.status = 0
    vi.stubGlobal('navigator', { onLine: false })
    first.result.write(doc('Liv’s own words'))
    await first.result.post()
    setOwner('nico')
    server.status = 200
    const { result: second } = open()
    await settled()
    expect(second.state.value).toBe('empty')
    expect(await waitingPosts()).toEqual([])
    setOwner('liv')
    expect((await waitingPosts()).map(p => p.body.doc)).toEqual([doc('Liv’s own words')])
    const { result: again } = open()
    await settled()
    expect(again.doc.value).toEqual(doc('Liv’s own words'))
  })

  it('keeps what was typed while its post was on its way', async () => {
    const posted = { path: '/api/activities/a/contributions', shelf: 'draft:a:top:' }
    const body = { key: 'k', doc: doc('sent') } as never // the rest of a post has no part in this
    await queuePost({ ...posted, body })
    const [post] = await waitingPosts()
    await vi.advanceTimersByTimeAsync(10)
    await keepText(posted.shelf, { doc: doc('sent, and more'), title: null, baseVersion: null })
    await forgetPosted(post!)
    expect((await keptText(posted.shelf))?.doc).toEqual(doc('sent, and more'))
  })

  it('says what a post is refused for, stays a draft, and is posted under the same key when nothing was changed', async () => {
    const { result: draft } = open()
    draft.write(doc('untitled'))
    server.status = 422
    expect(await draft.post()).toBeNull()
    expect(draft.problem.value).toBe('Give it a title.')
    server.status = 200
    await pause()
    expect(server.draft?.doc).toEqual(doc('untitled'))
    await draft.post()
    await draft.post()
    expect(server.posted.size).toBe(1)
  })

  it('never overwrites what another window has stored', async () => {
    const { result: draft } = open()
    server.draft = { doc: doc('from the other window'), version: 3 }
    draft.write(doc('from this one'))
    await pause()
    expect(draft.state.value).toBe('two texts')
    expect(draft.theirs.value?.doc).toEqual(doc('from the other window'))
    draft.settle(false)
    expect(draft.doc.value).toEqual(doc('from the other window'))
    expect(draft.state.value).toBe('saved')
  })

  it('does not say that it is kept where the browser keeps nothing', async () => {
    const storage = localStorage
    vi.stubGlobal('localStorage', {
      getItem: () => null,
      setItem: () => {
        throw new DOMException('full', 'QuotaExceededError')
      },
      removeItem: () => {},
    })
    const { result: draft } = open()
    server.status = 0
    draft.write(doc('nowhere to stay'))
    await pause()
    expect(draft.state.value).toBe('not kept')
    vi.stubGlobal('localStorage', storage)
    draft.write(doc('somewhere to stay'))
    await pause()
    expect(draft.state.value).toBe('kept here')
  })

  it('comes back after a closed tab', async () => {
    const first = open()
    first.result.write(doc('half a sente'))
    vi.clearAllTimers() // the tab is gone without a word
    const { result: draft } = open()
    await settled()
    expect(draft.doc.value).toEqual(doc('half a sente'))
    expect(draft.state.value).toBe('kept here')
    await pause()
    expect(server.draft?.doc).toEqual(doc('half a sente'))
  })

  it('is gone when it is discarded', async () => {
    const { result: draft } = open()
    draft.write(doc('no'))
    await pause()
    draft.write(doc('no, really'))
    await draft.discard()
    await vi.advanceTimersByTimeAsync(120_000)
    expect(server.draft).toBeNull()
    expect([localStorage.length, browser.texts.size]).toEqual([0, 0])
  })
})
