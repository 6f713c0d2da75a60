import pg from 'pg'

interface WarmServer {
  readonly url: string
  readonly address: string
}
export interface ClaimedServer extends WarmServer {
  readonly release: () => Promise<void>
}

const LOCKS = 4712 // the class of the advisory locks under which servers are claimed
const TRIES = 5

/**
 * Claims a running server whose database is as it was seeded, for this test alone; null when all are claimed or none runs.
 * The database is reset when the server is claimed, so that a test cut short leaves nothing for the next.
 */
export async function claimServer(): Promise<ClaimedServer | null> {
  const servers = JSON.parse(process.env.JOVREL_TEST_SERVERS ?? '[]') as WarmServer[]
  for (const [i, server] of servers.entries()) {
    const sql = new pg.Client({ connectionString: server.url })
    await sql.connect()
    const claim = await sql.query<{ mine: boolean }>('select pg_try_advisory_lock($1, $2) as mine', [
      LOCKS,
      i,
    ])
    if (claim.rows[0]!.mine) {
      await resetDatabase(sql)
      return { ...server, release: () => sql.end() } // the lock ends with its connection
    }
    await sql.end()
  }
  return null
}

/** Retries on deadlock (40P01): the server's own jobs go on meanwhile, and PostgreSQL ends one of the two. */
async function resetDatabase(sql: pg.Client): Promise<void> {
  for (let left = TRIES; ; left--) {
    try {
      await sql.query('select seed.reset()')
      return
    } catch (error) {
      if (left === 0 || (error as { code?: string }).code !== '40P01') throw error
    }
  }
}
