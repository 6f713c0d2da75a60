// npm test: everything that must hold, from a checkout with nothing installed. Ends with one line of figures.
import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { startCluster, removeCluster } from './cluster.mjs'
import { dataFolder, ensureBuild, ensurePackages, home, installPackage, runTypeScript } from './system.mjs'

const results = join(dataFolder, `test-results-${process.pid}`)
const cluster = join(dataFolder, `test-postgres-${process.pid}`)
const TEST_NOW = '2026-10-14T08:20:00Z' // Wednesday of week 6 in the demo seminar

/** Runs a part to its end; what it prints is shown when it is done. */
function part(name, command, args, env = {}) {
  const started = Date.now()
  return new Promise(resolve => {
    const child = spawn(command, args, {
      cwd: home,
      env: { ...process.env, FORCE_COLOR: '0', ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    let said = ''
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', data => {
        said += data
      })
    child.on('close', code => {
      console.log(
        `\n— ${name}: ${code === 0 ? 'fine' : 'FAILED'} (${Math.round((Date.now() - started) / 1000)} s)`,
      )
      if (said.trim()) console.log(said.trim())
      resolve(code === 0)
    })
  })
}

async function test() {
  ensurePackages()
  if (!existsSync('/usr/bin/chromium')) installPackage('chromium')
  if (!existsSync('/usr/bin/firefox-esr')) installPackage('firefox-esr') // the same text must have the same places in another engine
  mkdirSync(results, { recursive: true })
  const tally = { passed: 0, failed: 0 }
  const count = ok => {
    tally[ok ? 'passed' : 'failed']++
  }
  const database = await startCluster(cluster, ['fsync=off', 'max_connections=200'])
  let houses = null
  const stop = async () => {
    await houses?.close()
    await database.stop()
    removeCluster(cluster)
    rmSync(results, { recursive: true, force: true })
  }
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => void stop().then(() => process.exit(130)))
  try {
    // two at a time: types take about as long as lint and the build together
    const types = part('types', 'npx', ['nuxt', 'typecheck', '--logLevel=silent'])
    count(await part('lint', 'npx', ['eslint', '.', '--max-warnings', '0']))
    const build = ensureBuild()
    count(await types)
    const template = database.url('jovrel_seeded')
    runTypeScript('scripts/prepareDatabase.ts', ['--demo'], { DATABASE_URL: template, JOVREL_NOW: TEST_NOW })
    const { openHouses } = await import('./houses.mjs') // it needs our packages
    houses = await openHouses(template, build, 2, { JOVREL_NOW: TEST_NOW })
    const env = {
      JOVREL_TEST_DATABASE: template,
      JOVREL_TEST_BUILD: build,
      JOVREL_TEST_RESULTS: results,
      JOVREL_TEST_HOUSES: JSON.stringify(houses.open),
    }
    const unit = join(results, 'unit.json')
    await part(
      'core, services and routes',
      'npx',
      ['vitest', 'run', '--reporter=dot', '--reporter=json', `--outputFile.json=${unit}`],
      env,
    )
    add(tally, existsSync(unit) ? figuresOfVitest(unit) : { passed: 0, failed: 1 })
    const browser = join(results, 'browser.json')
    await part('the interface in a browser', 'npx', ['playwright', 'test'], {
      ...env,
      PLAYWRIGHT_JSON_OUTPUT_NAME: browser,
    })
    add(tally, existsSync(browser) ? figuresOfPlaywright(browser) : { passed: 0, failed: 1 })
  } finally {
    await stop()
  }
  console.log(`\n${tally.passed} passed, ${tally.failed} failed`)
  process.exitCode = tally.failed > 0 || tally.passed === 0 ? 1 : 0
}

const add = (tally, more) => {
  tally.passed += more.passed
  tally.failed += more.failed
}
function figuresOfVitest(file) {
  const r = JSON.parse(readFileSync(file, 'utf8'))
  // a file that could not even be read has no failed test, but it has failed
  const broken = r.testResults.filter(
    f => f.status === 'failed' && f.assertionResults.every(a => a.status !== 'failed'),
  ).length
  return { passed: r.numPassedTests, failed: r.numFailedTests + broken }
}
function figuresOfPlaywright(file) {
  const { stats, errors } = JSON.parse(readFileSync(file, 'utf8'))
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky + (errors?.length ?? 0) }
}

test().catch(error => {
  console.error(`\n${error.message}\n\n0 passed, 1 failed`)
  process.exit(1)
})
