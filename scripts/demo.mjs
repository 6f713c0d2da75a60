// npm run demo: brings Jovrel up with its demo seminar. Options: --reset (begin anew), --port N, --dev.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { freePort, isAlive, removeCluster, startCluster } from './cluster.mjs'
import { argument, startServer, untilStopped } from './serve.mjs'
import { dataFolder, ensureBuild, ensurePackages, home, runTypeScript } from './system.mjs'

const folder = join(dataFolder, 'demo')
const cluster = join(dataFolder, 'demo-postgres')
const note = join(folder, 'running.json') // who runs the demo, and where

async function demo() {
  mkdirSync(folder, { recursive: true })
  const other = existsSync(note) ? JSON.parse(readFileSync(note, 'utf8')) : null
  if (other && isAlive(other.pid)) {
    console.log(`The demo runs already: ${other.address} (process ${other.pid})`)
    return
  }
  await ensurePackages()
  if (process.argv.includes('--reset')) removeCluster(cluster)
  const database = await startCluster(cluster)
  const stopAll = [() => database.stop()]
  try {
    const clock = join(folder, 'clock')
    await runTypeScript('scripts/prepareDatabase.ts', ['--demo', '--clock', clock], {
      DATABASE_URL: database.url(),
    })
    const port = await choosePort(argument('--port'))
    const env = {
      PORT: port,
      DATABASE_URL: database.url(),
      JOVREL_DEMO: '1',
      ...(process.env.JOVREL_NOW ? {} : { JOVREL_CLOCK_START: readFileSync(clock, 'utf8') }),
    }
    const server = process.argv.includes('--dev')
      ? startDev(env)
      : await startServer(await ensureBuild(), env)
    stopAll.unshift(() => server.stop())
    writeFileSync(note, JSON.stringify({ pid: process.pid, address: server.address }))
    console.log(`
  Jovrel is at ${server.address}

  Sign in there with one click, or with these addresses and the password "harbour":
    ines@northmere.example      the instructor
    henrik@northmere.example    the assistant
    liv@northmere.example       a student in an ordinary week
    mireille@northmere.example  a student about to be marked
    rasmus@northmere.example    a student with a returned letter
    paz@northmere.example       a student who has gone silent

  Ctrl C stops everything.
`)
    untilStopped(server, async () => {
      for (const stop of stopAll) await stop()
      rmSync(note, { force: true })
    })
  } catch (error) {
    for (const stop of stopAll) await stop()
    throw error
  }
}

function startDev(env) {
  const nuxt = join(home, 'node_modules/nuxt/bin/nuxt.mjs')
  const child = spawn(
    process.execPath,
    [nuxt, 'dev', '--no-fork', '--host', '127.0.0.1', '--port', String(env.PORT)],
    { cwd: home, stdio: 'inherit', env: { ...process.env, ...env } },
  )
  return {
    address: `http://127.0.0.1:${env.PORT}`,
    stop: () =>
      new Promise(resolve => {
        child.on('exit', resolve)
        child.kill('SIGTERM')
      }),
    onEnd: f => child.on('exit', f),
  }
}

/** The port asked for, else 3100, else any that is free. A port asked for that is taken is said, not replaced. */
async function choosePort(asked) {
  const isFree = port =>
    new Promise(resolve => {
      const probe = createServer()
        .on('error', () => resolve(false))
        .listen(port, '127.0.0.1', () => probe.close(() => resolve(true)))
    })
  if (asked !== undefined) {
    const port = Number(asked)
    if (!Number.isInteger(port) || port < 1 || port > 65535)
      throw new Error(`--port takes a number from 1 to 65535, not "${asked}".`)
    if (!(await isFree(port)))
      throw new Error(
        `Port ${port} is taken by another program. Choose another with --port, or leave it out.`,
      )
    return port
  }
  return (await isFree(3100)) ? 3100 : freePort()
}

demo().catch(error => {
  console.error(`\n${error.message}`)
  process.exit(1)
})
