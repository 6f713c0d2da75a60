// The parts of a test run: each is a command that prints when it is done, and its figures.
import { spawn } from 'node:child_process'
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { basename, join } from 'node:path'
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
 * time, in two rows of about the same length.
 */
export async function checkAndBuild(ensureBuild, seeded) {
  const passed = []
  const check = async (name, command, args) => passed.push(await part(name, command, args))
  const types = async () => {
    for (const { name, args } of TYPE_CHECKS) await check(name, 'node', args)
  }
  const others = async () => {
    await check('layout', 'prettier', ['--check', '--log-level=warn', '.'])
    await check('lint', 'eslint', ['.', '--max-warnings', '0'])
    return [await ensureBuild(), await seeded()]
  }
  const [[build, template]] = await Promise.all([others(), types()])
  return { build, template, passed }
}

/** Vitest on everything, or on files whose path contains one of the filters. */
export async function unitTests(results, env, { filters = [], live = false } = {}) {
  const json = join(results, 'unit.json')
  const reporters = [`--reporter=${live ? 'default' : 'dot'}`, '--reporter=json', `--outputFile.json=${json}`]
  await part('core, services and routes', 'vitest', ['run', ...reporters, ...filters], { env, live })
  return existsSync(json) ? figuresOfVitest(json) : { passed: 0, failed: 1 }
}

/** Playwright on everything, or on files whose path contains one of the filters. */
export async function browserTests(results, env, { filters = [], live = false } = {}) {
  const json = join(results, 'browser.json')
  await part('the interface in a browser', 'playwright', ['test', ...filters], {
    env: { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: json },
    live,
  })
  const figures = existsSync(json) ? figuresOfPlaywright(json) : { passed: 0, failed: 1 }
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

function figuresOfVitest(file) {
  const result = JSON.parse(readFileSync(file, 'utf8'))
  // a file that could not even be read has no failed test, but it has failed
  const broken = result.testResults.filter(
    f => f.status === 'failed' && f.assertionResults.every(a => a.status !== 'failed'),
  ).length
  return { passed: result.numPassedTests, failed: result.numFailedTests + broken }
}

function figuresOfPlaywright(file) {
  const { stats, errors } = JSON.parse(readFileSync(file, 'utf8'))
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky + (errors?.length ?? 0) }
}
