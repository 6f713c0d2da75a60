// npm test: everything that must hold, from a checkout with nothing installed. Ends with one line of figures.
// npm test -- core/marking e2e/marking: only the tests whose path contains one of these, on a database and a build that are kept.
import { existsSync, mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureChromium, SHELL as CHROMIUM } from './chromium.mjs'
import { findBinaries } from './cluster.mjs'
import { dataFolder, ensureBuild, ensurePackages, installBeside, installPackage } from './system.mjs'
import { freshDatabase, keptDatabase, TEST_NOW } from './testDatabase.mjs'
import { measurePace } from './testPace.mjs'
import { browserTests, checkAndBuild, unitTests } from './testParts.mjs'

const results = join(dataFolder, `test-results-${process.pid}`)
const filters = process.argv.slice(2)
const SERVERS = 2 // as many as Vitest and Playwright have workers: each test has one for itself
const tally = { passed: 0, failed: 0, faults: [] }
const add = ({ passed, failed, faults }) => {
  tally.passed += passed
  tally.failed += failed
  tally.faults.push(...(faults ?? []))
}
const closers = []

async function everything() {
  ensureBrowsers()
  const database = await opened(freshDatabase())
  const { build, template, passed } = await checkAndBuild(ensureBuild, database.seeded)
  for (const { name, ok } of passed)
    add({ passed: Number(ok), failed: Number(!ok), faults: ok ? [] : [name] })
  const env = await testEnvironment(template, build, SERVERS)
  add(await unitTests(results, env))
  add(await browserTests(results, env))
}

async function some() {
  const inBrowser = filters.filter(f => f.startsWith('e2e'))
  const others = filters.filter(f => !f.startsWith('e2e'))
  const plain = { JOVREL_TEST_PACE: String(await measurePace()) }
  const needsServer = inBrowser.length > 0 || others.some(f => !/^(core|shared|app|scripts)\b/.test(f))
  if (!needsServer) return add(await unitTests(results, plain, { filters: others, live: true }))
  if (inBrowser.length > 0) ensureBrowsers()
  const database = await opened(keptDatabase())
  const env = await testEnvironment(await database.seeded(), await ensureBuild(), SERVERS)
  if (others.length > 0) add(await unitTests(results, env, { filters: others, live: true }))
  if (inBrowser.length > 0) add(await browserTests(results, env, { filters: inBrowser, live: true }))
}

/** Opens servers on copies of the seeded database, and says in variables where everything is. */
async function testEnvironment(template, build, count) {
  const { openTestServers } = await import('./testServers.mjs') // it needs our packages
  const servers = await opened(openTestServers(template, build, count, { JOVREL_NOW: TEST_NOW }))
  return {
    JOVREL_TEST_DATABASE: template,
    JOVREL_TEST_BUILD: build,
    JOVREL_TEST_RESULTS: results,
    JOVREL_TEST_SERVERS: JSON.stringify(servers.open),
    JOVREL_TEST_PACE: String(await measurePace()),
  }
}

const FIREFOX = '/usr/bin/firefox-esr'
function ensureBrowsers() {
  ensureChromium()
  if (!existsSync(FIREFOX)) installPackage('firefox-esr') // the same words must have the same places there
}

/** Debian's packages that a whole run takes and that are not there. */
const missingPackages = () => [
  ...(existsSync(CHROMIUM) ? [] : ['chromium-headless-shell']),
  ...(existsSync(FIREFOX) ? [] : ['firefox-esr']),
  ...(findBinaries() ? [] : ['postgresql']),
]

async function opened(opening) {
  const thing = await opening
  closers.unshift(() => thing.close())
  return thing
}

async function stop() {
  for (const close of closers.splice(0)) await close()
  rmSync(results, { recursive: true, force: true })
}

async function test() {
  await Promise.all([ensurePackages(), installBeside(filters.length > 0 ? [] : missingPackages())])
  mkdirSync(results, { recursive: true })
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => void stop().then(() => process.exit(130)))
  try {
    await (filters.length > 0 ? some() : everything())
  } finally {
    await stop()
  }
  // again at the end: where only the last lines of a run are kept, they must say what failed
  for (const fault of tally.faults) console.log(`\nFailed: ${fault}`)
  console.log(`\n${tally.passed} passed, ${tally.failed} failed`)
  process.exitCode = tally.failed > 0 || tally.passed === 0 ? 1 : 0
}

test().catch(error => {
  console.error(`\n${error.message}\n\n0 passed, 1 failed`)
  process.exit(1)
})
