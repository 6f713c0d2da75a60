// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { setOwner } from '~/autosave/ownedKey'
import { keepText, keptText, queuePost, waitingPosts } from '../contributing/localDrafts'
import { useWordsHere } from './wordsHere'

const browser = { texts: new Map<string, unknown>(), posts: new Map<string, unknown>() }
vi.mock('idb-keyval', () => ({
  createStore: (name: string) => (name === 'jovrel-texts' ? browser.texts : browser.posts),
  get: async (key: string, store: Map<string, unknown>) => store.get(key),
  set: async (key: string, value: unknown, store: Map<string, unknown>) => void store.set(key, value),
  del: async (key: string, store: Map<string, unknown>) => void store.delete(key),
  delMany: async (keys: string[], store: Map<string, unknown>) => keys.forEach(key => store.delete(key)),
  keys: async (store: Map<string, unknown>) => [...store.keys()],
  entries: async (store: Map<string, unknown>) => [...store.entries()],
}))
vi.mock('../contributing/useOutbox', () => ({ useOutbox: () => ({ flush: async () => {} }) }))

const text = (words: string) => ({
  doc: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }] },
  title: null,
  baseVersion: null,
})
// of a post, only its key is read here
const post = { path: '/api/activities/a/contributions', shelf: 'draft:a', body: { key: 'k' } as never }

describe('words that are in this browser only', () => {
  beforeEach(() => {
    localStorage.clear()
    browser.texts.clear()
    browser.posts.clear()
    setOwner('liv')
  })

  it('are counted once each, and nobody else’s with them', async () => {
    const { count } = useWordsHere()
    expect(await count()).toBe(0)
    await keepText('draft:a', text('half a post'))
    await queuePost(post)
    localStorage.setItem('mark:x@liv', '{}')
    localStorage.setItem('jovrel:key:letter@liv', '{}')
    localStorage.setItem('mark:y@nico', '{}')
    expect(await count()).toBe(2)
    setOwner('nico')
    expect(await count()).toBe(1)
  })

  it('are gone from both storages and the outbox when they are deleted; another’s stay', async () => {
    await keepText('draft:a', text('half a post'))
    await queuePost(post)
    setOwner('nico')
    await keepText('draft:a', text('of somebody else'))
    setOwner('liv')
    await useWordsHere().forget()
    expect(await keptText('draft:a')).toBeUndefined()
    expect(await waitingPosts()).toEqual([])
    expect(JSON.stringify({ ...localStorage })).not.toContain('half a post')
    setOwner('nico')
    expect(await keptText('draft:a')).toMatchObject(text('of somebody else'))
  })
})
