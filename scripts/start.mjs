// npm start: Jovrel for real use. Configured by the environment (.env.example says how).
import { join } from 'node:path'
import { startCluster } from './cluster.mjs'
import { keepServer, startServer, untilStopped } from './serve.mjs'
import { dataFolder, ensureBuild, ensurePackages, runTypeScript } from './system.mjs'

async function start() {
  await ensurePackages()
  const own = process.env.DATABASE_URL ? null : await startCluster(join(dataFolder, 'postgres'))
  try {
    const url = process.env.DATABASE_URL ?? own.url()
    await runTypeScript('scripts/prepareDatabase.ts', [], { DATABASE_URL: url })
    const entry = await ensureBuild()
    const server = await keepServer(() =>
      startServer(entry, { PORT: process.env.PORT ?? '3000', DATABASE_URL: url, JOVREL_DEMO: '' }),
    )
    console.log(`Jovrel is at ${server.address}. Ctrl C stops it.`)
    untilStopped(server, async () => {
      await server.stop()
      await own?.stop()
    })
  } catch (error) {
    await own?.stop()
    throw error
  }
}

start().catch(error => {
  console.error(`\n${error.message}`)
  process.exit(1)
})
