import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { rowsOf } from '#server/database/client'
import { nameOf } from '#server/testing/access/answersByTable'
import { ROLES, type Role } from '#server/testing/access/roles'
import { CONTRIBUTING_TABLE, TEACHING_TABLE } from '#server/testing/access/tables'
import { addSeminars } from '#server/testing/enlarge'
import type { Client } from '#server/testing/server'
import { until } from '#server/testing/until'
import { testWorld, type World } from '#server/testing/world'

const OTHER_SEMINARS = 110
const MANY = 1500 // rows: of fewer a whole table is read as fast as an index
const ASKING = ['ines', 'liv'] as const

/** What is read whole on purpose, or seldom. */
const NOT_COUNTED = [
  'GET /api/access-log', // of the whole installation
  'GET /api/installation', // whether anybody is there at all
  'GET /api/demo/people', // of the demo alone
  'GET /api/seminars/:seminarId/people/:enrolmentId/erase', // looks for a name in every text of the seminar
]
const READS = [...CONTRIBUTING_TABLE, ...TEACHING_TABLE].filter(
  ({ endpoint }) =>
    endpoint.method === 'GET' &&
    endpoint.answer &&
    !endpoint.progress &&
    !NOT_COUNTED.includes(nameOf(endpoint)),
)

interface Scans {
  readonly table: string
  readonly scans: number
}

describe('an answer about one seminar among many', () => {
  let world: World
  const clients = new Map<Role, Client>()
  beforeAll(async () => {
    world = await testWorld({ own: true, minutes: false })
    await addSeminars(world.db, OTHER_SEMINARS)
    for (const who of ASKING) clients.set(who, await world.as(who))
  })
  afterAll(() => world.close())

  /** How often each large table was read whole. */
  const scansOf = () =>
    rowsOf<Scans & Record<string, unknown>>(
      world.db,
      sql`select s.relname as table, s.seq_scan::int as scans from pg_stat_user_tables s join pg_class c on c.oid = s.relid
        where c.reltuples >= ${MANY} order by 1`,
    )

  /** The same once it says no more: connections tell what they did a second after it. */
  function settled(): Promise<Scans[]> {
    let before = ''
    return until('what was read is known', async () => {
      await world.db.execute(sql`select pg_sleep(1.5)`)
      const scans = await scansOf()
      const isSame = JSON.stringify(scans) === before
      before = JSON.stringify(scans)
      return isSame ? scans : null
    })
  }

  it('reads no large table whole', async () => {
    expect(READS.length).toBeGreaterThan(60)
    const before = new Map((await settled()).map(s => [s.table, s.scans]))
    expect(before.size).toBeGreaterThan(12)
    for (const row of READS)
      for (const who of ASKING) {
        if (row.expected[ROLES.indexOf(who)] !== 200) continue
        await (await clients.get(who)!.send('GET', await row.path(world))).arrayBuffer()
      }
    const more = (await settled()).filter(s => s.scans > before.get(s.table)!)
    expect(more.map(s => `${s.table}: ${s.scans - before.get(s.table)!}`)).toEqual([])
  })
})
