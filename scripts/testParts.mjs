// The parts of a test run: each is a command that prints when it is done, and its figures.
import { spawn } from 'node:child_process'
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { basename, join, relative } from 'node:path'
import { stripVTControlCharacters } from 'node:util'
import { home } from './system.mjs'
import { TYPE_CHECKS } from './types.mjs'

const bin = name => join(home, 'node_modules', '.bin', name)

/**
 * Runs a part to its end. What it prints is kept until then, unless it is to be shown as it comes.
 * @returns {Promise<boolean>} whether it succeeded
 */
export function part(name, command, args, { env = {}, live = false } = {}) {
  const started = Date.now()
  return new Promise(resolve => {
    const child = spawn(command === 'node' ? process.execPath : bin(command), args, {
      cwd: home,
      env: { ...process.env, ...(!live && { FORCE_COLOR: '0' }), ...env },
      stdio: ['ignore', live ? 'inherit' : 'pipe', live ? 'inherit' : 'pipe'],
    })
    let printed = ''
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', data => (printed += data))
    child.on('close', code => {
      const seconds = Math.round((Date.now() - started) / 1000)
      console.log(`\n— ${name}: ${code === 0 ? 'fine' : 'FAILED'} (${seconds} s)`)
      if (printed.trim()) console.log(printed.trim())
      resolve(code === 0)
    })
  })
}

/**
 * Layout, rules and types, and what the other tests run on: the built server and the seeded database. Two processes at a
 * time: one row builds and seeds, the other checks, and whichever is free takes the next check, the longest first.
 */
export async function checkAndBuild(ensureBuild, seeded) {
  const passed = []
  const waiting = [
    ...TYPE_CHECKS.slice(0, 1).map(({ name, args }) => [name, 'node', args]),
    ['layout', 'prettier', ['--check', '--log-level=warn', '.']],
    ['lint', 'eslint', ['.', '--max-warnings', '0']],
    ...TYPE_CHECKS.slice(1).map(({ name, args }) => [name, 'node', args]),
  ]
  const checkInTurn = async () => {
    for (let check = waiting.shift(); check; check = waiting.shift()) {
      passed.push({ name: check[0], ok: await part(...check) })
    }
  }
  const make = async () => {
    const made = [await ensureBuild(), await seeded()]
    await checkInTurn()
    return made
  }
  const [[build, template]] = await Promise.all([make(), checkInTurn()])
  return { build, template, passed }
}

/** What a part counts for that ended before it wrote its figures. */
const NOTHING_WRITTEN = { passed: 0, failed: 1, faults: [] }

/** Vitest on everything, or on files whose path contains one of the filters. */
export async function unitTests(results, env, { filters = [], live = false } = {}) {
  const json = join(results, 'unit.json')
  const reporters = [`--reporter=${live ? 'default' : 'dot'}`, '--reporter=json', `--outputFile.json=${json}`]
  await part('core, services and routes', 'vitest', ['run', ...reporters, ...filters], { env, live })
  return existsSync(json) ? figuresOfVitest(json) : NOTHING_WRITTEN
}

/** Playwright on everything, or on files whose path contains one of the filters. */
export async function browserTests(results, env, { filters = [], live = false } = {}) {
  const json = join(results, 'browser.json')
  await part('the interface in a browser', 'playwright', ['test', ...filters], {
    env: { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: json },
    live,
  })
  const figures = existsSync(json) ? figuresOfPlaywright(json) : NOTHING_WRITTEN
  if (figures.failed > 0) sayWhatWasShown(join(results, 'browser'))
  return figures
}

const MOST_SHOWN = 6000 // characters

/** What stood on the page of each test that failed: it goes into the output, because of other machines nothing else is kept. */
function sayWhatWasShown(folder) {
  if (!existsSync(folder)) return
  for (const file of readdirSync(folder, { recursive: true }).filter(f => basename(f) === 'error-context.md'))
    console.log(`\n${file}\n${readFileSync(join(folder, file), 'utf8').slice(0, MOST_SHOWN)}`)
}

const MOST_OF_A_MESSAGE = 1500 // characters

function figuresOfVitest(file) {
  const result = JSON.parse(readFileSync(file, 'utf8'))
  const faults = result.testResults.flatMap(suite => faultsOf(suite))
  return { passed: result.numPassedTests, failed: faults.length, faults }
}

function faultsOf(suite) {
  const failed = suite.assertionResults.filter(a => a.status === 'failed')
  const path = relative(home, suite.name)
  // a file that could not even be read has no failed test, but it has failed
  if (failed.length === 0 && suite.status === 'failed') return [fault(path, suite.message)]
  return failed.map(a => fault(`${path}: ${a.fullName}`, a.failureMessages.join('\n')))
}

const fault = (name, message) => `${name}\n${stripVTControlCharacters(message).slice(0, MOST_OF_A_MESSAGE)}`

function figuresOfPlaywright(file) {
  const { stats, errors, suites } = JSON.parse(readFileSync(file, 'utf8'))
  const general = (errors ?? []).map(e => fault('Playwright', e.message ?? ''))
  const faults = [...suites.flatMap(suite => faultsInBrowser(suite)), ...general]
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky + general.length, faults }
}

function faultsInBrowser(suite) {
  const here = (suite.specs ?? [])
    .filter(spec => !spec.ok)
    .map(spec => {
      const messages = spec.tests.flatMap(test => test.results.map(r => r.error?.message ?? ''))
      return fault(`${spec.file}: ${spec.title}`, messages.join('\n'))
    })
  return [...here, ...(suite.suites ?? []).flatMap(inner => faultsInBrowser(inner))]
}
