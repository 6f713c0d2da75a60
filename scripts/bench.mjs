// npm run bench: measures a built Jovrel on a database of its own. Figures are for comparing within one run.
// npm run bench -- others: only how long one person waits for another. npm run bench -- scale: only how pages open with
// twenty times the contributions. npm run bench -- talk: only the first screen of a long talk.
import { join } from 'node:path'
import { ensureChromium } from './chromium.mjs'
import { removeCluster, startCluster } from './cluster.mjs'
import { dataFolder, ensureBuild, ensurePackages, runTypeScript } from './system.mjs'

await ensurePackages()
ensureChromium()
const PARTS = { others: 'bench/runOthers.ts', scale: 'bench/runScale.ts', talk: 'bench/runTalk.ts' }
const folder = join(dataFolder, `bench-postgres-${process.pid}`)
const database = await startCluster(folder)
try {
  const template = database.url('jovrel_seeded')
  await runTypeScript('scripts/prepareDatabase.ts', ['--demo'], {
    DATABASE_URL: template,
    JOVREL_NOW: '2026-10-14T08:20:00Z',
  })
  await runTypeScript(PARTS[process.argv[2]] ?? 'bench/run.ts', [], {
    JOVREL_TEST_DATABASE: template,
    JOVREL_TEST_BUILD: await ensureBuild(),
  })
} finally {
  await database.stop()
  removeCluster(folder)
}
