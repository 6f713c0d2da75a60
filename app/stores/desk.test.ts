// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Endpoint } from '#shared/http/endpoint'
import type { MarkView } from '#shared/marking/desk'
import { markTextOf } from '../composables/marking/markSaving'
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
  isTooLate: false,
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
        if (!id) return { id: 'activity', kind: 'discussion' }
        const mark = server.marks.get(id)!
        if (method === 'GET') return { student: { id }, mark: viewOf(mark), group: null }
        if (server.isSlow) await new Promise<void>(resolve => server.waiting.push(resolve))
        if (server.isAway) throw refuse(0, 'unreached')
        if (body!.baseVersion !== mark.version) throw refuse(409, 'changedMeanwhile', viewOf(mark))
        mark.version++
        if (path.endsWith('/mark')) mark.markerNote = body!.markerNote!
        if (path.endsWith('/hold')) mark.state = 'held'
        if (path.endsWith('/reopen')) mark.state = 'open'
        if (path.endsWith('/return')) mark.state = 'returned'
        if (path.endsWith('/take-back')) {
          if (server.isTooLate) throw refuse(409, 'tooLate')
          mark.state = 'held'
        }
        return viewOf(mark)
      },
    }),
  }
})
const viewOf = (mark: Saved) => ({
  ...mark,
  steps: [],
  ownSteps: [],
  citations: [],
  files: [],
  excusedFrom: [],
  letter: null,
})

describe('marks on the desk', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    Object.assign(server, { waiting: [], isSlow: false, isAway: false, isTooLate: false })
    localStorage.clear()
    server.marks = new Map(
      ['liv', 'paz'].map(id => [id, { version: 1, state: 'open' as MarkView['state'], markerNote: '' }]),
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
    await store.settle(mine ? markTextOf(store.record!.mark) : null)
    expect(noteOf('liv')).toBe(stays)
    expect(store.record!.mark.markerNote).toBe(stays)
    expect(store.state).toBe('saved')
  })

  it('offers both, too, when an act on the mark meets one that somebody else has saved', async () => {
    const store = await desk()
    Object.assign(server.marks.get('liv')!, { version: 5, markerNote: 'theirs' })
    expect(await store.act('hold')).toBeNull()
    expect(store.state).toBe('two texts')
    await store.settle(null)
    expect(store.record!.mark).toMatchObject({ version: 5, markerNote: 'theirs' })
    expect(await store.act('hold')).toMatchObject({ state: 'held' })
  })

  it('takes the last change back, on the record it was made on, and does it again', async () => {
    const store = await desk()
    store.change({ markerNote: 'a slip' })
    await store.show('paz')
    await store.takeBack('undo')
    expect(store.currentId).toBe('liv')
    expect(store.record!.mark.markerNote).toBe('')
    await pause()
    expect(noteOf('liv')).toBe('')
    await store.takeBack('redo')
    await pause()
    expect(noteOf('liv')).toBe('a slip')
  })

  it('takes a hold back before what was written under it, and never empties what is held', async () => {
    const store = await desk()
    store.change({ markerNote: 'thorough' })
    await store.act('hold')
    expect(await store.takeBack('undo')).toMatchObject({ deed: { act: 'hold' }, isDone: true })
    expect(server.marks.get('liv')).toMatchObject({ state: 'open', markerNote: 'thorough' })
    await store.takeBack('undo')
    await pause()
    expect(noteOf('liv')).toBe('')
    await store.takeBack('redo')
    await store.takeBack('redo')
    expect(server.marks.get('liv')).toMatchObject({ state: 'held', markerNote: 'thorough' })
  })

  it('opens again what was returned at once, when that is taken back', async () => {
    const store = await desk()
    await store.act('return')
    await store.takeBack('undo')
    expect(server.marks.get('liv')!.state).toBe('open')
  })

  it('says that a return cannot be taken back any more, and goes on to what was done before', async () => {
    const store = await desk()
    store.change({ markerNote: 'thorough' })
    await store.act('return')
    server.isTooLate = true
    expect(await store.takeBack('undo')).toMatchObject({ isDone: false })
    expect(store.problem).toBe('tooLate.')
    expect(await store.takeBack('undo')).toMatchObject({ deed: { kind: 'change' }, isDone: true })
  })

  it('does not take back twice what was taken back by its own button', async () => {
    const store = await desk()
    store.change({ markerNote: 'thorough' })
    await store.act('hold')
    await store.act('reopen')
    expect(await store.takeBack('undo')).toMatchObject({ deed: { kind: 'change' } })
  })

  it('says “not saved” of the record it is true of, and of no other', async () => {
    const store = await desk()
    server.isAway = true
    store.change({ markerNote: 'about Liv' })
    await pause()
    server.isAway = false
    await store.show('paz')
    server.isAway = true
    await pause()
    expect([store.state, store.problem]).toEqual(['saved', null])
    server.isAway = false
    store.retry()
    await vi.advanceTimersByTimeAsync(0)
    expect([...store.unsaved]).toEqual([])
  })

  it('brings back after a reload what could not be saved, on its record, and saves it', async () => {
    const store = await desk()
    server.isAway = true
    await store.show('paz')
    store.change({ markerNote: 'about Paz' })
    await pause()
    expect([...store.unsaved]).toEqual(['paz'])

    setActivePinia(createPinia()) // the page anew; the browser keeps what it kept
    server.isAway = false
    const again = await desk()
    await again.restoreKept()
    expect([...again.unsaved]).toEqual(['paz'])
    expect(again.records.get('paz')!.mark.markerNote).toBe('about Paz')
    await pause()
    expect(noteOf('paz')).toBe('about Paz')
    expect([...again.unsaved]).toEqual([])
  })

  it('shows what was kept beside what somebody has saved since, and overwrites neither', async () => {
    const store = await desk()
    server.isAway = true
    store.change({ markerNote: 'mine, unsaved' })
    await pause()
    Object.assign(server.marks.get('liv')!, { version: 7, markerNote: 'theirs' })

    setActivePinia(createPinia())
    server.isAway = false
    const again = await desk()
    await pause()
    expect(again.state).toBe('two texts')
    expect([again.record!.mark.markerNote, again.theirs!.markerNote]).toEqual(['mine, unsaved', 'theirs'])
    expect(noteOf('liv')).toBe('theirs')
  })

  it('tells once that a mark is being changed that its student has', async () => {
    server.marks.get('liv')!.state = 'returned'
    const store = await desk()
    store.change({ markerNote: 'again' })
    expect(store.changedAfterReturn).toBe('liv')
    store.heardOfChange()
    store.change({ markerNote: 'again and again' })
    expect(store.changedAfterReturn).toBeNull()
  })
})
