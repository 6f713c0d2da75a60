import { Piscina } from 'piscina'
import { Problem } from '#server/http/problem'
import type { Tasks, ThreadAnswer, ThreadCall } from './answering'

export interface PoolBounds {
  readonly threads: number
  readonly waiting: number // tasks that may wait for a thread; more are refused
  readonly megabytes: number // for each thread
}
/** A task was ended because it took more than it may. */
export class TaskEnded extends Error {
  constructor(readonly reason: 'time' | 'memory') {
    super(`threadPool: ended, it took too much ${reason}`)
    this.name = 'TaskEnded'
  }
}

const IDLE = 60_000 // milliseconds after which a thread that has nothing to do ends

/**
 * A few threads for one kind of long work, so that others are served meanwhile and whatever the work loads or breaks stays
 * there. A thread that takes too long or too much memory is ended, and the next task gets a new one.
 */
export class ThreadPool<T extends Tasks> {
  private pool: Piscina | undefined

  /** @param file its default export is made by `answering` */
  constructor(
    private readonly file: () => URL, // asked for at the first task: a built server knows its place only then
    private readonly bounds: PoolBounds,
  ) {}

  /**
   * @param milliseconds from now on, waiting for a thread included
   * @param handedOver memory of the arguments that is the thread's from now on, and need not be copied
   * @returns what the task returns; arguments and answer are copied
   * @throws {Problem} as the task threw it, or 503 if too many wait already; {TaskEnded} past its bounds
   */
  async run<K extends keyof T & string>(
    task: K,
    args: Parameters<T[K]>,
    milliseconds: number,
    handedOver: readonly ArrayBuffer[] = [],
  ): Promise<Awaited<ReturnType<T[K]>>> {
    const signal = AbortSignal.timeout(Math.round(milliseconds))
    const answer = await this.answer({ task, args }, signal, handedOver)
    // the thread ran the task of this name, so the value is of its type
    if (answer.kind === 'done') return answer.value as Awaited<ReturnType<T[K]>>
    throw new Problem(answer.status, answer.code, answer.sentence, answer.extra)
  }

  async close(): Promise<void> {
    await this.pool?.destroy()
  }

  private async answer(
    call: ThreadCall,
    signal: AbortSignal,
    handedOver: readonly ArrayBuffer[],
  ): Promise<ThreadAnswer> {
    // sources that were not built (commands, tests of services) cannot be loaded by a thread
    const file = this.file()
    if (file.pathname.endsWith('.ts')) {
      const { default: answerHere } = (await import(/* @vite-ignore */ file.href)) as {
        default: (call: ThreadCall) => Promise<ThreadAnswer>
      }
      return answerHere(call)
    }
    this.pool ??= new Piscina({
      filename: file.href,
      minThreads: 0,
      maxThreads: this.bounds.threads,
      maxQueue: this.bounds.waiting,
      idleTimeout: IDLE,
      resourceLimits: { maxOldGenerationSizeMb: this.bounds.megabytes },
    })
    if (this.pool.queueSize >= this.bounds.waiting)
      throw new Problem(503, 'busy', 'There is a lot to do just now. Try again in a minute.')
    try {
      return await this.pool.run(call, { signal, transferList: [...handedOver] })
    } catch (error) {
      if (signal.aborted) throw new TaskEnded('time')
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY') throw new TaskEnded('memory')
      throw error
    }
  }
}
