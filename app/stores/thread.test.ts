// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Endpoint } from '#shared/http/endpoint'
import { useThreadStore } from './thread'

/** The server as the page sees it: what it has, and answers that leave when the test lets them. */
const server = { done: null as boolean | null, waiting: [] as Array<() => void>, isSlow: false }

vi.mock('../composables/shell/useApi', () => ({
  newKey: () => 'key',
  useApi: () => ({
    call: async ({ method, path }: Endpoint, input: { readonly body?: unknown } = {}) => {
      // a write is done when it arrives; a read is answered by what stood there when it arrived
      if (method === 'PUT') Object.assign(server, input.body)
      const answer = answerTo(path)
      if (server.isSlow && method === 'GET') await new Promise<void>(resolve => server.waiting.push(resolve))
      return answer
    },
  }),
}))

function answerTo(path: string): unknown {
  if (path === '/api/activities/:activityId') return { id: 'activity' }
  if (path.endsWith('/contributions'))
    return {
      contributions: [
        {
          id: 'c',
          view: 'whole',
          seq: 1,
          by: 0,
          more: { html: '<p>', done: server.done },
        },
      ],
      authors: [{}],
      drafts: [],
      lastSeq: 1,
      closedToWords: false,
      closedThreads: [],
    }
  return { done: true }
}

describe('the thread of an activity on the page', () => {
  beforeEach(async () => {
    Object.assign(server, { done: null, waiting: [], isSlow: false })
    setActivePinia(createPinia())
  })
  const doneOnPage = (store: ReturnType<typeof useThreadStore>) => store.whole[0]?.done

  it('shows a mark at once', async () => {
    const store = useThreadStore()
    await store.load('activity')
    const marking = store.markOne('c', { done: true, points: null })
    expect(doneOnPage(store)).toBe(true)
    await marking
    expect(doneOnPage(store)).toBe(true)
  })

  it('keeps showing a mark when an answer comes late that was read before it', async () => {
    const store = useThreadStore()
    await store.load('activity')
    server.isSlow = true
    const refreshing = store.refresh() // reads the thread without the mark
    await vi.waitFor(() => expect(server.waiting).toHaveLength(2))
    await store.markOne('c', { done: true, points: null })
    server.isSlow = false
    server.waiting.splice(0).forEach(answer => answer())
    await refreshing
    expect(doneOnPage(store)).toBe(true)
  })
})
