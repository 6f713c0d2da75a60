/** Codes of PostgreSQL (appendix A) and of the system by which a database is away: it restarts, or the network is gone. */
const AWAY = new Set(['57P01', '57P02', '57P03', '08000', '08001', '08003', '08006', '53300'])
const AWAY_OF_SYSTEM = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOTFOUND',
  'EHOSTUNREACH',
])
const AWAY_WORDS = /connection terminated|not queryable|connection error/i
/** Statement or transaction past its time, lock not got in time, two that wait for each other. */
const SLOW = new Set(['57014', '55P03', '25P03', '25P04', '40P01'])
const SLOW_WORDS = /timeout exceeded when trying to connect/i

/** What a failed query means for whoever asked: the database is away, or it had no time; null if it is neither. */
export function databaseFailure(error: unknown): 'away' | 'slow' | null {
  for (let at = error; at instanceof Error; at = at.cause) {
    const { code } = at as { code?: unknown }
    if (typeof code === 'string') {
      if (AWAY.has(code) || AWAY_OF_SYSTEM.has(code)) return 'away'
      if (SLOW.has(code)) return 'slow'
    }
    if (SLOW_WORDS.test(at.message)) return 'slow'
    if (AWAY_WORDS.test(at.message)) return 'away'
  }
  return null
}
