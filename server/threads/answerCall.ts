import { parentPort, workerData } from 'node:worker_threads'
import { Problem } from '#server/http/problem'

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- the tasks say what they take
export type Tasks = Readonly<Record<string, (...args: any[]) => unknown>>
export interface ThreadCall {
  readonly task: string
  readonly args: readonly unknown[]
}
export type ThreadAnswer =
  | { readonly kind: 'done'; readonly value: unknown }
  | {
      readonly kind: 'problem'
      readonly status: number
      readonly code: string
      readonly sentence: string
      readonly extra: Problem['extra']
    }

/** In a thread started by `runThread`: does the task it was started for and answers. What is not a `Problem` ends the thread. */
export async function answerCall(tasks: Tasks): Promise<void> {
  const { task, args } = workerData as ThreadCall
  const port = parentPort!
  const say = (answer: ThreadAnswer) => port.postMessage(answer)
  try {
    say({ kind: 'done', value: await tasks[task]!(...args) })
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    say({
      kind: 'problem',
      status: error.status,
      code: error.code,
      sentence: error.sentence,
      extra: error.extra,
    })
  }
}
