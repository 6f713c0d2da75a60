/** What of an error may stand in a log: its kind, codes and where it came from; never a message, a parameter or a text. */
interface LoggedError {
  readonly name: string
  readonly code?: string // of PostgreSQL or of the system
  readonly constraint?: string
  readonly table?: string
  readonly contract?: readonly string[] // paths of an answer that misses its contract, with what was wrong
  readonly frames: readonly string[]
}

const MOST_FRAMES = 8

/** Writes one line of JSON about a failure to the error stream. */
export function logError(task: string, error: unknown, more: Readonly<Record<string, string>> = {}): void {
  console.error(JSON.stringify({ at: new Date().toISOString(), task, ...more, error: loggable(error) }))
}

const SELDOM = 10_000 // milliseconds between two lines of one kind
const told = new Map<string, { at: number; untold: number }>() // by task, code and what else is said

/**
 * The same for what many requests meet at once, like a database that is away: one line of a kind in ten seconds, which
 * says how many there were since the last.
 */
export function logSeldom(task: string, error: unknown, more: Readonly<Record<string, string>> = {}): void {
  const kind = [task, loggable(error).code, ...Object.values(more)].join(' ')
  const last = told.get(kind)
  if (last && Date.now() - last.at < SELDOM) {
    last.untold++
    return
  }
  told.set(kind, { at: Date.now(), untold: 0 })
  logError(task, error, last?.untold ? { ...more, before: String(last.untold) } : more)
}

/** Looks through the wrapper of a failed query, whose message holds the statement with its parameters. */
export function loggable(error: unknown): LoggedError {
  if (!(error instanceof Error)) return { name: typeof error, frames: [] }
  const cause = (error.cause instanceof Error ? error.cause : error) as Error & Record<string, unknown>
  const text = (key: string) => (typeof cause[key] === 'string' ? { [key]: cause[key] } : {})
  const issues = Array.isArray(cause.issues)
    ? (cause.issues as Array<{ path: unknown[]; code: string }>)
    : null
  return {
    name: cause.name,
    ...text('code'),
    ...text('constraint'),
    ...text('table'),
    ...(issues && { contract: issues.map(i => `${i.path.join('.')}: ${i.code}`) }),
    frames: framesOf(error),
  }
}

/** Lines of a stack that name code; those before them repeat the message. */
const framesOf = ({ stack = '' }: Error): string[] =>
  stack
    .split('\n')
    .map(line => line.trim())
    .filter(line => /^at .*:\d+:\d+\)?$/.test(line))
    .slice(0, MOST_FRAMES)
