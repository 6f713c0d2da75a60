import { AsyncLocalStorage } from 'node:async_hooks'

const counting = new AsyncLocalStorage<{ queries: number }>()

/** Counts the statements that are sent while something is done, and by what it calls. */
export async function countQueries<T>(act: () => Promise<T>): Promise<{ answer: T; queries: number }> {
  const count = { queries: 0 }
  const answer = await counting.run(count, act)
  return { answer, queries: count.queries }
}

/** A statement is sent. */
export function noteQuery(): void {
  const count = counting.getStore()
  if (count) count.queries++
}
