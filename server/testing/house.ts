import postgres from 'postgres'

interface House {
  readonly url: string
  readonly address: string
}
export interface ClaimedHouse extends House {
  readonly leave: () => Promise<void>
}

const LOCKS = 4712 // the class of the locks under which houses are claimed
const TRIES = 5

/**
 * A warm server whose database is as it was seeded, for this test alone; null when every house is taken or none is open.
 * It is put back when it is entered, so that a test cut short leaves nothing for the next.
 */
export async function enterHouse(): Promise<ClaimedHouse | null> {
  const houses = JSON.parse(process.env.JOVREL_TEST_HOUSES ?? '[]') as House[]
  for (const [i, house] of houses.entries()) {
    const sql = postgres(house.url, { max: 1, onnotice: () => {}, idle_timeout: 0, max_lifetime: null })
    const [claim] = await sql<Array<{ mine: boolean }>>`select pg_try_advisory_lock(${LOCKS}, ${i}) as mine`
    if (claim!.mine) {
      await putBack(sql)
      return { ...house, leave: () => sql.end() } // the claim ends with its connection
    }
    await sql.end()
  }
  return null
}

/** The server's own work (mail, what opens at its time) goes on meanwhile: where the two wait for each other, PostgreSQL ends one. */
async function putBack(sql: postgres.Sql): Promise<void> {
  for (let left = TRIES; ; left--) {
    try {
      await sql`select seed.put_back()`
      return
    } catch (error) {
      if (left === 0 || (error as { code?: string }).code !== '40P01') throw error
    }
  }
}
