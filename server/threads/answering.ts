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

/**
 * What a thread's file exports by default: does the task it is called for. A `Problem` is handed over as what it says,
 * because classes do not cross threads; any other error is one of the program.
 */
export const answering =
  (tasks: Tasks) =>
  async ({ task, args }: ThreadCall): Promise<ThreadAnswer> => {
    try {
      return { kind: 'done', value: await tasks[task]!(...args) }
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      const { status, code, sentence, extra } = error
      return { kind: 'problem', status, code, sentence, extra }
    }
  }
