import { join } from 'node:path'
import { removeCluster, startCluster } from './cluster.mjs'
import { dataFolder, runTypeScript } from './system.mjs'

/** A database with the demo in it as it is in week 6, for one command; removed afterwards, whatever happens. */
export async function withDemoDatabase(name, act) {
  const folder = join(dataFolder, `${name}-postgres-${process.pid}`)
  const database = await startCluster(folder)
  try {
    const url = database.url('jovrel_seeded')
    await runTypeScript('scripts/prepareDatabase.ts', ['--demo'], {
      DATABASE_URL: url,
      JOVREL_NOW: '2026-10-14T08:20:00Z',
    })
    return await act(url)
  } finally {
    await database.stop()
    removeCluster(folder)
  }
}
