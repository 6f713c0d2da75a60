// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Endpoint } from '#shared/http/endpoint'
import type { MarkView } from '#shared/marking/desk'
import { useDeskStore } from './desk'

const PAUSE = 600
interface Saved {
  version: number
  state: MarkView['state']
  markerNote: string
}
interface Given {
  readonly params?: { readonly enrolmentId?: string }
  readonly body?: { readonly baseVersion: number; readonly markerNote?: string }
}

/** Marks as the server keeps them, by student; requests wait for the test where it is slow. */
const server = {
  marks: new Map<string, Saved>(),
  waiting: [] as Array<() => void>,
  isSlow: false,
  isAway: false,
}

vi.mock('../composables/shell/useApi', async original => {
  const { ApiProblem } = await original<typeof import('../composables/shell/useApi')>()
  const refuse = (status: number, code: string, theirs?: unknown) =>
    new ApiProblem({ type: 'about:blank', title: code, status, code, detail: `${code}.`, theirs })
  return {
    ApiProblem,
    newKey: () => 'key',
    useApi: () => ({
      call: async ({ method, path }: Endpoint, { params, body }: Given = {}) => {
        if (path.endsWith('/desk')) return { students: ['liv', 'paz'].map(id => ({ id, standing: 'ready' })) }
        const id = params?.enrolmentId
        if (!id) return { id: 'activity' }
        const mark = server.marks.get(id)!
        if (method === 'GET') return { student: { id }, mark: viewOf(mark), group: null }
        if (server.isSlow) await new Promise<void>(resolve => server.waiting.push(resolve))
        if (server.isAway) throw refuse(0, 'unreached')
        if (body!.baseVersion !== mark.version) throw refuse(409, 'changedMeanwhile', viewOf(mark))
        mark.version++
        if (path.endsWith('/mark')) mark.markerNote = body!.markerNote!
        if (path.endsWith('/hold')) mark.state = 'held'
        return viewOf(mark)
      },
    }),
  }
})
const viewOf = (mark: Saved) => ({
  ...mark,
  steps: [],
  citations: [],
  files: [],
  excusedFrom: [],
  letter: null,
})

describe('marks on the desk', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    Object.assign(server, { waiting: [], isSlow: false, isAway: false })
    server.marks = new Map(
      ['liv', 'paz'].map(id => [id, { version: 1, state: 'draft' as MarkView['state'], markerNote: '' }]),
    )
    setActivePinia(createPinia())
  })
  afterEach(() => {
    vi.useRealTimers()
  })
  async function desk() {
    const store = useDeskStore()
    await store.load('activity', 'liv')
    return store
  }
  const pause = () => vi.advanceTimersByTimeAsync(PAUSE)
  const noteOf = (id: string) => server.marks.get(id)!.markerNote

  it('saves a change at the pause, and says so', async () => {
    const store = await desk()
    store.change({ markerNote: 'good sources' })
    expect(store.state).toBe('saving')
    await pause()
    expect(noteOf('liv')).toBe('good sources')
    expect(store.state).toBe('saved')
    expect(store.record!.mark.version).toBe(2)
  })

  it('saves the mark left behind when one goes on to the next student', async () => {
    const store = await desk()
    store.change({ markerNote: 'about Liv' })
    await store.show('paz')
    store.change({ markerNote: 'about Paz' })
    await pause()
    expect([noteOf('liv'), noteOf('paz')]).toEqual(['about Liv', 'about Paz'])
    expect(store.state).toBe('saved')
  })

  it('holds a mark after saving it, and goes on saving what is typed meanwhile', async () => {
    const store = await desk()
    store.change({ markerNote: 'one' })
    const holding = store.act('hold')
    await vi.advanceTimersByTimeAsync(0)
    store.change({ markerNote: 'one two' })
    await holding
    await pause()
    expect(server.marks.get('liv')).toMatchObject({ state: 'held', markerNote: 'one two' })
    expect(store.state).toBe('saved')
  })

  it('holds nothing that could not be saved', async () => {
    const store = await desk()
    server.isAway = true
    store.change({ markerNote: 'one' })
    expect(await store.act('hold')).toBeNull()
    expect(store.state).toBe('not saved')
    expect(store.problem).toBe('unreached.')
    server.isAway = false
    await store.save()
    expect(noteOf('liv')).toBe('one')
    expect(store.state).toBe('saved')
  })

  it.each([
    [true, 'mine'],
    [false, 'theirs'],
  ])('offers both when somebody else has saved the mark (mine: %s)', async (mine, stays) => {
    const store = await desk()
    Object.assign(server.marks.get('liv')!, { version: 5, markerNote: 'theirs' })
    store.change({ markerNote: 'mine' })
    await pause()
    expect(store.state).toBe('two texts')
    expect([store.record!.mark.markerNote, store.theirs!.markerNote]).toEqual(['mine', 'theirs'])
    await store.settle(mine)
    expect(noteOf('liv')).toBe(stays)
    expect(store.record!.mark.markerNote).toBe(stays)
    expect(store.state).toBe('saved')
  })

  it('offers both, too, when an act on the mark meets one that somebody else has saved', async () => {
    const store = await desk()
    Object.assign(server.marks.get('liv')!, { version: 5, markerNote: 'theirs' })
    expect(await store.act('hold')).toBeNull()
    expect(store.state).toBe('two texts')
    await store.settle(false)
    expect(store.record!.mark).toMatchObject({ version: 5, markerNote: 'theirs' })
    expect(await store.act('hold')).toMatchObject({ state: 'held' })
  })

  it('takes the last change back, on the record it was made on', async () => {
    const store = await desk()
    store.change({ markerNote: 'a slip' })
    await store.show('paz')
    await store.undoLast()
    expect(store.currentId).toBe('liv')
    expect(store.record!.mark.markerNote).toBe('')
    await pause()
    expect(noteOf('liv')).toBe('')
  })
})
