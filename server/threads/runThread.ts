import { Worker } from 'node:worker_threads'
import { Problem } from '#server/http/problem'
import type { ThreadAnswer, ThreadCall, Tasks } from './answerCall'

/** What a task may take of the machine before it is ended. */
export interface Bounds {
  readonly milliseconds: number
  readonly megabytes: number
}
/** A task was ended because it took more than it may. */
export class TaskEnded extends Error {
  constructor(readonly reason: 'time' | 'memory') {
    super(`runThread: ended, it took too much ${reason}`)
    this.name = 'TaskEnded'
  }
}

/**
 * Runs one task in a thread of its own, so that others are served meanwhile, and whatever it loads or breaks stays there.
 *
 * @param file the thread's file, which calls `answerCall`; arguments and answer are copied
 * @throws {Problem} as the task threw it; {TaskEnded} past its bounds
 */
export function runThread<T extends Tasks, K extends keyof T & string>(
  file: URL,
  task: K,
  args: Parameters<T[K]>,
  bounds: Bounds,
): Promise<Awaited<ReturnType<T[K]>>> {
  return new Promise((resolve, reject) => {
    const thread = new Worker(file, {
      workerData: { task, args } satisfies ThreadCall,
      resourceLimits: { maxOldGenerationSizeMb: bounds.megabytes },
    })
    const ends = setTimeout(() => end(() => reject(new TaskEnded('time'))), bounds.milliseconds)
    const end = (say: () => void) => {
      clearTimeout(ends)
      say()
      void thread.terminate()
    }
    thread.once('message', (answer: ThreadAnswer) =>
      end(() => {
        if (answer.kind === 'done') resolve(answer.value as Awaited<ReturnType<T[K]>>)
        else reject(new Problem(answer.status, answer.code, answer.sentence, answer.extra))
      }),
    )
    thread.once('error', error =>
      end(() =>
        reject(
          (error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY' ? new TaskEnded('memory') : error,
        ),
      ),
    )
    thread.once('exit', code =>
      end(() => reject(new Error(`runThread: "${task}" left with ${code} and no answer`))),
    )
  })
}
