import { logError } from '#server/log'

const FIRST_PAUSE = 500 // milliseconds
const LONGEST_PAUSE = 15_000

/**
 * Tries until it succeeds, waiting a little longer each time: what a process needs of a database that may come later.
 * @param task what it is called in the log; the first failure is told, and each one after a longer pause
 * @returns gives it up
 */
export function persistently(task: string, act: () => Promise<unknown>): () => void {
  let pause = FIRST_PAUSE
  let timer: NodeJS.Timeout | undefined
  let isOver = false
  const attempt = () =>
    void act().catch((error: unknown) => {
      logError(task, error)
      if (isOver) return
      timer = setTimeout(attempt, pause)
      pause = Math.min(LONGEST_PAUSE, 2 * pause)
    })
  attempt()
  return () => {
    isOver = true
    clearTimeout(timer)
  }
}
