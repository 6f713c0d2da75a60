import { describe, expect, it } from 'vitest'
import { Problem } from '#server/http/problem'
import { runThread, TaskEnded } from './runThread'

const thread = (code: string) =>
  new URL(
    `data:text/javascript,${encodeURIComponent(`import { parentPort, workerData } from 'node:worker_threads'\n${code}`)}`,
  )
const run = (code: string, bounds = { milliseconds: 20_000, megabytes: 200 }, args: unknown[] = []) =>
  runThread<Record<string, (...args: unknown[]) => unknown>, string>(thread(code), 'task', args, bounds)

describe('a thread', () => {
  it('answers with what its task made of what it was given', async () => {
    expect(
      await run(
        'parentPort.postMessage({ kind: "done", value: [workerData.task, ...workerData.args] })',
        undefined,
        [1, new Uint8Array([7])],
      ),
    ).toEqual(['task', 1, new Uint8Array([7])])
  })
  it('hands a problem over with its sentence and its field', async () => {
    const problem = await run(
      'parentPort.postMessage({ kind: "problem", status: 422, code: "locked", sentence: "It is locked.", extra: { fields: { file: "It is locked." } } })',
    ).catch((e: unknown) => e)
    expect(problem).toBeInstanceOf(Problem)
    expect(problem).toMatchObject({
      status: 422,
      code: 'locked',
      sentence: 'It is locked.',
      extra: { fields: { file: 'It is locked.' } },
    })
  })
  it('is ended when it takes too long, or too much memory, and harms nothing else', async () => {
    expect(await run('for (;;);', { milliseconds: 300, megabytes: 200 }).catch((e: unknown) => e)).toEqual(
      new TaskEnded('time'),
    )
    expect(
      await run('const all = []; for (;;) all.push(new Array(1000).fill(all.length))', {
        milliseconds: 60_000,
        megabytes: 20,
      }).catch((e: unknown) => e),
    ).toMatchObject({ reason: 'memory' })
  })
  it('says so when it fails or leaves without an answer', async () => {
    await expect(run('throw new RangeError("no")')).rejects.toThrow('no')
    await expect(run('process.exit(3)')).rejects.toThrow('left with 3')
  })
})
