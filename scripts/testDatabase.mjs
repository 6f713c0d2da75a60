// The seeded database tests are copied from: thrown away after a whole run, kept between runs of single tests.
import { join } from 'node:path'
import { removeCluster, startCluster } from './cluster.mjs'
import { dataFolder, digestOf, runTypeScript, takeLock } from './system.mjs'

export const TEST_NOW = '2026-10-14T08:20:00Z' // Wednesday of week 6 in the demo seminar

// nothing in it outlives a run, and no test waits for what makes a database safe or statistics fresh at a moment of chance
const SETTINGS = [
  'fsync=off',
  'full_page_writes=off',
  'synchronous_commit=off',
  'wal_level=minimal',
  'max_wal_senders=0',
  'jit=off',
  'autovacuum_naptime=1h',
  'max_connections=200',
]
const SEED_SOURCES = ['core', 'shared', 'server', 'demo', 'scripts/prepareDatabase.ts', 'package-lock.json']

/** A cluster of this run's own, removed when it is closed. */
export async function freshDatabase() {
  const folder = join(dataFolder, `test-postgres-${process.pid}`)
  const cluster = await startCluster(folder, SETTINGS)
  return {
    /** Address of the seeded database, which is made now. */
    async seeded() {
      await seed(cluster.url('seeded'))
      return cluster.url('seeded')
    },
    async close() {
      await cluster.stop()
      removeCluster(folder)
    },
  }
}

/** The kept cluster; the seeded database in it is made anew when what it is made from has changed. One run at a time has it. */
export async function keptDatabase() {
  const folder = join(dataFolder, 'test-postgres')
  const release = takeLock(join(dataFolder, 'test-postgres.lock'))
  const cluster = await startCluster(folder, SETTINGS)
  const { default: pg } = await import('pg') // it is one of our packages: they are installed by now
  const admin = new pg.Client({ connectionString: cluster.url('postgres') })
  await admin.connect()
  return {
    async seeded() {
      const wanted = `seeded_${digestOf(SEED_SOURCES)}`
      const { rows: known } = await admin.query(
        "select datname as name from pg_database where datname ~ '^(seeded|t)_'",
      )
      if (!known.some(d => d.name === wanted)) {
        for (const { name } of known) await admin.query(`drop database "${name}" with (force)`)
        await seed(cluster.url('seeded_making'))
        await admin.query(`alter database seeded_making rename to "${wanted}"`)
      }
      return cluster.url(wanted)
    },
    async close() {
      await admin.end()
      await cluster.stop()
      release()
    },
  }
}

function seed(url) {
  const env = { DATABASE_URL: url, JOVREL_NOW: TEST_NOW, npm_config_loglevel: 'error' }
  return runTypeScript('scripts/prepareDatabase.ts', ['--demo'], env)
}
