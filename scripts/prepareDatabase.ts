// Makes the database when it is missing, brings it to the current schema, and seeds the demo seminar when asked to.
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { openDatabase } from '#server/database/client'
import { migrateDatabase } from '#server/database/migrate'
import { prepareQueue } from '#server/jobs/queue'
import { keepCounts } from '#server/services/voices/textMeasures'
import { startServices } from '#server/services/startServices'
import { keepDue } from '#server/services/standing/keepStandings'
import { demoClock, seedDemo } from '../demo/seed'

const url = process.env.DATABASE_URL
if (!url) throw new Error('DATABASE_URL is not set')
const clockFile = process.argv.includes('--clock')
  ? process.argv[process.argv.indexOf('--clock') + 1]
  : undefined

await makeDatabase(url)
await migrateDatabase(url, join(import.meta.dirname, '../server/database/migrations'))
await prepareQueue(url)
if (process.argv.includes('--demo')) {
  startServices()
  const { db, close } = openDatabase(url, 2)
  await seedDemo(db, process.env.JOVREL_NOW ? new Date(process.env.JOVREL_NOW) : new Date())
  const clock = await demoClock(db)
  await keepDue(db, clock)
  await keepCounts(db)
  if (clockFile) writeFileSync(clockFile, clock.toISOString())
  await close()
}

async function makeDatabase(address: string) {
  const name = decodeURIComponent(new URL(address).pathname.slice(1))
  const probe = new pg.Client({ connectionString: address })
  try {
    await probe.connect()
    await probe.end()
  } catch (error) {
    if ((error as { code?: string }).code !== '3D000') throw error // anything but "database does not exist"
    const admin = new pg.Client({
      connectionString: Object.assign(new URL(address), { pathname: '/postgres' }).href,
    })
    await admin.connect()
    await admin.query(`create database "${name.replaceAll('"', '""')}"`)
    await admin.end()
  }
}
