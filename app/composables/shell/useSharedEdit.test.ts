// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { withSetup } from '~/testing/withSetup'
import { ApiProblem } from './useApi'
import { useSharedEdit, type Stored } from './useSharedEdit'

interface Plan {
  readonly title: string
  readonly words: number
  readonly brief: string
}
const PAUSE = 800

/** A plan that several people edit, field by field, as the server keeps it. */
class Server {
  stored: Stored<Plan> = { version: 1, body: { title: 'Walls', words: 100, brief: '' }, savedBy: null }
  isAway = false
  received: Array<Partial<Plan>> = []
  save = async (change: Partial<Plan>, base: number): Promise<Stored<Plan>> => {
    if (this.isAway) throw refusal(0, 'unreached')
    this.received.push(change)
    if (base !== this.stored.version) throw refusal(409, 'changedMeanwhile', this.stored)
    if (change.title === '') throw refusal(422, 'contract', undefined, { title: 'Give it a title.' })
    this.by(null, change)
    return this.stored
  }
  by(savedBy: string | null, change: Partial<Plan>) {
    this.stored = { version: this.stored.version + 1, body: { ...this.stored.body, ...change }, savedBy }
  }
}
const refusal = (status: number, code: string, theirs?: unknown, fields?: Record<string, string>) =>
  new ApiProblem({ type: 'about:blank', title: code, status, code, detail: `${code}.`, theirs, fields })

describe('a plan several people edit', () => {
  let server: Server
  beforeEach(() => {
    vi.useFakeTimers()
    localStorage.clear()
    server = new Server()
  })
  afterEach(() => {
    vi.useRealTimers()
  })
  const open = (auto = true) =>
    withSetup(() =>
      useSharedEdit<Plan>({
        stored: server.stored,
        send: server.save,
        theirsOf: theirs => theirs as Stored<Plan>,
        auto: () => auto,
        draftKey: 'jovrel:activity:test',
      }),
    )
  const pause = () => vi.advanceTimersByTimeAsync(PAUSE)

  it('sends the fields that are changed, and only these', async () => {
    const { result: edit } = open()
    edit.change({ title: 'Old walls' })
    expect(edit.state.value).toBe('changed')
    await pause()
    expect(server.received).toEqual([{ title: 'Old walls' }])
    expect(edit.state.value).toBe('saved')
    expect(edit.base.value.title).toBe('Old walls')
  })

  it('joins what somebody else has saved in other fields, and says who', async () => {
    const { result: edit } = open()
    server.by('Henrik', { brief: 'Read it twice.' })
    edit.change({ words: 200 })
    await edit.save()
    expect(server.stored.body).toEqual({ title: 'Walls', words: 200, brief: 'Read it twice.' })
    expect(edit.mine.value).toEqual(server.stored.body)
    expect(edit.joined.value).toBe('Henrik')
    expect(edit.state.value).toBe('saved')
  })

  it('lets one decide where both changed the same field, and loses neither meanwhile', async () => {
    const { result: edit } = open()
    server.by('Henrik', { title: 'Town walls', words: 50 })
    edit.change({ title: 'Old walls', brief: 'Mine.' })
    await pause()
    expect(edit.state.value).toBe('clash')
    expect(edit.clashes.value).toEqual([{ field: 'title', mine: 'Old walls', theirs: 'Town walls' }])
    expect(edit.mine.value.words).toBe(50)
    edit.settle('title', 'theirs')
    await pause()
    expect(server.stored.body).toEqual({ title: 'Town walls', words: 50, brief: 'Mine.' })
    expect(edit.state.value).toBe('saved')
  })

  it('sends nothing of a plan that is live until it is applied, and lets changes go', async () => {
    const { result: edit, unmount } = open(false)
    edit.change({ words: 300 })
    await vi.advanceTimersByTimeAsync(60_000)
    document.dispatchEvent(new Event('visibilitychange'))
    expect(server.received).toEqual([])
    expect(edit.state.value).toBe('changed')
    edit.letGo()
    expect(edit.changed.value).toBe(false)
    expect(edit.state.value).toBe('saved')
    edit.change({ words: 301 })
    unmount()
    await pause()
    expect(server.received).toEqual([])
  })

  it('says at its field what is refused', async () => {
    const { result: edit } = open()
    edit.change({ title: '' })
    await pause()
    expect(edit.state.value).toBe('refused')
    expect(edit.problems.value).toEqual({ title: 'Give it a title.' })
  })

  it('keeps changes in the browser without a connection, over a closed tab, and sends them when it is back', async () => {
    server.isAway = true
    const first = open()
    first.result.change({ brief: 'From the train.' })
    await pause()
    expect(first.result.state.value).toBe('kept here')
    first.unmount()
    await vi.advanceTimersByTimeAsync(0)
    const { result: edit } = open()
    await vi.advanceTimersByTimeAsync(0)
    expect(edit.mine.value.brief).toBe('From the train.')
    server.isAway = false
    window.dispatchEvent(new Event('online'))
    await vi.advanceTimersByTimeAsync(0)
    expect(server.stored.body.brief).toBe('From the train.')
    expect(localStorage.length).toBe(0)
  })

  it('is saved where the same was stored already, by a request whose answer was lost', async () => {
    const { result: edit } = open()
    server.by('Ines', { title: 'Old walls' })
    edit.change({ title: 'Old walls' })
    await pause()
    await pause()
    expect(edit.state.value).toBe('saved')
    expect(edit.base.value.title).toBe('Old walls')
    expect(edit.changed.value).toBe(false)
  })

  it('has nothing to send when a change is taken back by hand', async () => {
    const { result: edit } = open()
    edit.change({ words: 101 })
    edit.change({ words: 100 })
    expect(edit.state.value).toBe('saved')
    await pause()
    expect(server.received).toEqual([])
    expect(localStorage.length).toBe(0)
  })

  it('keeps what is typed while it saves on top of what the server has made of it', async () => {
    const { result: edit } = open()
    edit.change({ title: 'Old walls' })
    const saving = edit.save()
    edit.change({ words: 7 })
    await saving
    expect(edit.mine.value).toEqual({ title: 'Old walls', words: 7, brief: '' })
    await pause()
    expect(server.stored.body).toEqual({ title: 'Old walls', words: 7, brief: '' })
  })

  it('keeps the space that was typed last, though the server takes it off', async () => {
    const save = server.save
    server.save = (change, base) =>
      save({ ...change, ...(change.title && { title: change.title.trim() }) }, base)
    const { result: edit } = open()
    edit.change({ title: 'The walls ' })
    await vi.advanceTimersByTimeAsync(PAUSE)
    expect([server.stored.body.title, edit.mine.value.title]).toEqual(['The walls', 'The walls '])
    expect(edit.state.value).toBe('saved')
    edit.change({ title: 'The walls of Sundvik' })
    await vi.advanceTimersByTimeAsync(PAUSE)
    expect(server.stored.body.title).toBe('The walls of Sundvik')
    expect(server.received).toHaveLength(2)
  })
})
