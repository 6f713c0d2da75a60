import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { afterAll, afterEach, describe, expect, it } from 'vitest'
import { Problem } from '#server/http/problem'
import { answering, type Tasks } from './answering'
import { TaskEnded, ThreadPool } from './threadPool'

const folder = mkdtempSync(join(tmpdir(), 'threads-'))
afterAll(() => rmSync(folder, { recursive: true }))

const TASKS = `
const tasks = {
  same: (...args) => ({ kind: 'done', value: args }),
  locked: () => ({ kind: 'problem', status: 422, code: 'locked', sentence: 'It is locked.', extra: { fields: { file: 'It is locked.' } } }),
  endless: () => { for (;;); },
  greedy: () => { const all = []; for (;;) all.push(new Array(1000).fill(all.length)) },
  broken: () => { throw new RangeError('no') },
  leaves: () => process.exit(3),
  waits: async flag => { while (!Atomics.load(new Int32Array(flag), 0)) await new Promise(setImmediate); return { kind: 'done', value: null } },
}
export default ({ task, args }) => tasks[task](...args)
`
const file = join(folder, 'tasksThread.mjs')
writeFileSync(file, TASKS)

let pool: ThreadPool<Tasks>
const open = (threads: number, waiting = 100) =>
  (pool = new ThreadPool<Tasks>(() => pathToFileURL(file), { threads, waiting, megabytes: 40 }))
afterEach(() => pool.close())
const LONG = 60_000
const failed = (promise: Promise<unknown>) => promise.then(String, (e: unknown) => e)

describe('a pool of threads', () => {
  it('answers with what a task made of what it was given', async () => {
    expect(await open(2).run('same', [1, new Uint8Array([7])], LONG)).toEqual([1, new Uint8Array([7])])
  })

  it('hands a problem over with its sentence and its field', async () => {
    const problem = await failed(open(1).run('locked', [], LONG))
    expect(problem).toBeInstanceOf(Problem)
    expect(problem).toMatchObject({
      status: 422,
      code: 'locked',
      sentence: 'It is locked.',
      extra: { fields: { file: 'It is locked.' } },
    })
  })

  it('ends a task that takes too long or too much memory, and has a thread for the next one', async () => {
    open(1)
    expect(await failed(pool.run('endless', [], 300))).toEqual(new TaskEnded('time'))
    expect(await failed(pool.run('greedy', [], LONG))).toEqual(new TaskEnded('memory'))
    expect(await pool.run('same', ['still'], LONG)).toEqual(['still'])
  })

  it('says so when a task fails or leaves without an answer', async () => {
    open(1)
    await expect(pool.run('broken', [], LONG)).rejects.toThrow('no')
    expect(await failed(pool.run('leaves', [], LONG))).toBeInstanceOf(Error)
    expect(await pool.run('same', ['still'], LONG)).toEqual(['still'])
  })

  it('refuses in words once too many wait', async () => {
    open(1, 2)
    const flag = new SharedArrayBuffer(4)
    const first = pool.run('waits', [flag], LONG)
    const waiting = [1, 2].map(n => pool.run('same', [n], LONG))
    expect(await failed(pool.run('same', [3], LONG))).toMatchObject({ status: 503, code: 'busy' })
    Atomics.store(new Int32Array(flag), 0, 1)
    await first
    expect(await Promise.all(waiting)).toEqual([[1], [2]])
  })
})

describe('what a thread answers', () => {
  it('is the value, or what a problem says; other errors stay errors', async () => {
    const answer = answering({
      double: (n: number) => 2 * n,
      refuse: () => {
        throw new Problem(422, 'locked', 'It is locked.')
      },
      broken: () => {
        throw new RangeError('no')
      },
    })
    expect(await answer({ task: 'double', args: [4] })).toEqual({ kind: 'done', value: 8 })
    expect(await answer({ task: 'refuse', args: [] })).toMatchObject({ kind: 'problem', code: 'locked' })
    await expect(answer({ task: 'broken', args: [] })).rejects.toThrow('no')
  })
})
