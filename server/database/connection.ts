import { openDatabase, type BeforeCommit, type Database } from './client'

const SECOND = 1000 // milliseconds
const MINUTE = 60 * SECOND

/**
 * Connections by what they are for, so that no kind of work takes those of another: whoever waits for a locked table
 * or takes a term's archive away keeps nobody from signing in.
 */
const POOLS = {
  main: { connections: 10, statement: 20 * SECOND, transaction: 90 * SECOND },
  access: { connections: 3, statement: 5 * SECOND, transaction: 10 * SECOND }, // who asks
  long: { connections: 3, statement: 15 * MINUTE, transaction: 15 * MINUTE }, // files made, archives, imports
  jobs: { connections: 5, statement: 5 * MINUTE, transaction: 5 * MINUTE },
} as const
export type PoolName = keyof typeof POOLS

const LOCK = 5 * SECOND
const WAIT = 30 * SECOND // for a connection: on the evening before a deadline one rather waits than is refused

let atTheEnd: BeforeCommit = () => Promise.resolve()

/** What every transaction of this process does as its last act. */
export function beforeEveryCommit(act: BeforeCommit): void {
  atTheEnd = act
}

const opened = new Map<PoolName, ReturnType<typeof openDatabase>>()

/** One of this process's pools, opened at the first use from `DATABASE_URL`. */
export function useDatabase(name: PoolName = 'main'): Database {
  let pool = opened.get(name)
  if (!pool) {
    const url = process.env.DATABASE_URL
    if (!url) throw new Error('DATABASE_URL is not set: start Jovrel with npm start or npm run demo')
    const { connections, statement, transaction } = POOLS[name]
    const limits = { statement, transaction, lock: LOCK, wait: WAIT }
    pool = openDatabase(url, connections, limits, tx => atTheEnd(tx))
    opened.set(name, pool)
  }
  return pool.db
}
