// What the commands need from the machine: Debian's packages, our own packages, a build of the current sources.
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const home = dirname(dirname(fileURLToPath(import.meta.url)))
export const dataFolder = join(home, '.data')

const INSTALL = ['apt-get', 'install', '-y', '--no-install-recommends']
const QUIETLY = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
/** A command and its arguments, as root, or through sudo where that asks for no password. */
const asRoot = ([command, ...args]) =>
  process.getuid?.() === 0 ? [command, args] : ['sudo', ['-n', command, ...args]]

/**
 * Installs some of Debian's packages, which takes longer by the network than by the processor, beside other work. It never
 * fails: what is not there afterwards is installed by itself when it is needed, and then its absence is said.
 */
export async function installBeside(names) {
  if (names.length === 0) return
  console.log(`Installing ${names.join(', ')} …`)
  const apt = args =>
    new Promise(resolve => {
      spawn(...asRoot(args), { stdio: 'ignore', env: QUIETLY })
        .on('error', () => resolve(false))
        .on('close', code => resolve(code === 0))
    })
  if (await apt([...INSTALL, ...names])) return
  await apt(['apt-get', 'update'])
  await apt([...INSTALL, ...names])
}

/** Installs one of Debian's packages. */
export function installPackage(name) {
  const run = args =>
    spawnSync(...asRoot(args), { stdio: ['ignore', 'ignore', 'pipe'], encoding: 'utf8', env: QUIETLY })
  console.log(`Installing ${name} …`)
  const install = () => run([...INSTALL, name])
  if (install().status === 0) return
  run(['apt-get', 'update'])
  const again = install()
  if (again.status !== 0)
    throw new Error(
      `The package "${name}" is missing and could not be installed here. Install it (apt-get install ${name}), then run this again.`,
    )
}

/** Runs a command of the project to its end; rejects when it fails. */
export function run(command, args, env = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: home, stdio: 'inherit', env: { ...process.env, ...env } })
    child.on('error', reject)
    child.on('close', code => {
      if (code === 0) return resolve()
      reject(new Error(`"${[command, ...args].join(' ')}" failed; what it said is above.`))
    })
  })
}

/** Our npm packages, installed when they are missing or the lock file has changed. */
export async function ensurePackages() {
  const wanted = createHash('sha256')
    .update(readFileSync(join(home, 'package-lock.json')))
    .digest('hex')
  const stamp = join(home, 'node_modules', '.jovrel-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  console.log('Installing packages …')
  await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'])
  writeFileSync(stamp, wanted)
}

const SOURCES = [
  'app',
  'core',
  'shared',
  'server',
  'public',
  'nuxt.config.ts',
  'vuetify.config.ts',
  'package-lock.json',
]

function* filesIn(path) {
  if (!existsSync(path)) return
  if (statSync(path).isFile()) {
    yield path
    return
  }
  for (const name of readdirSync(path).sort()) yield* filesIn(join(path, name))
}

/** Digest of files and folders of the project, tests left out. */
export function digestOf(sources) {
  const hash = createHash('sha256')
  for (const source of sources)
    for (const file of filesIn(join(home, source)))
      if (!/\.(test|testing)\.ts$/.test(file) && !file.includes('/testing/'))
        hash.update(file.slice(home.length)).update(readFileSync(file))
  return hash.digest('hex').slice(0, 16)
}

/**
 * The server built from the current sources; built when there is none. Each build has a folder of its own, so that
 * one that is running is never replaced under its feet.
 * @returns {Promise<string>} the server's entry file
 */
export async function ensureBuild() {
  const builds = join(dataFolder, 'builds')
  const folder = join(builds, digestOf(SOURCES))
  const entry = join(folder, 'server', 'index.mjs')
  const whole = join(folder, 'complete')
  if (!existsSync(whole)) {
    mkdirSync(builds, { recursive: true })
    const release = takeLock(join(builds, 'lock'))
    try {
      if (!existsSync(whole)) {
        console.log('Building …')
        rmSync(folder, { recursive: true, force: true })
        await run('npx', ['nuxt', 'build', '--logLevel=silent'], {
          JOVREL_OUTPUT: folder,
          NODE_ENV: 'production',
        })
        writeFileSync(whole, '')
        keepNewest(builds, 3)
      }
    } finally {
      release()
    }
  }
  return entry
}

/**
 * Takes a lock file for this process, waiting while another living process holds it.
 * @returns {() => void} gives it back
 */
export function takeLock(lock) {
  mkdirSync(dirname(lock), { recursive: true })
  for (;;) {
    try {
      writeFileSync(lock, String(process.pid), { flag: 'wx' })
      return () => rmSync(lock, { force: true })
    } catch (error) {
      if (error.code !== 'EEXIST') throw error
      const holder = Number(readFileSync(lock, 'utf8'))
      if (!holder || !existsSync(`/proc/${holder}`)) rmSync(lock, { force: true })
      else Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 500)
    }
  }
}

function keepNewest(builds, most) {
  const folders = readdirSync(builds)
    .map(name => join(builds, name))
    .filter(f => statSync(f).isDirectory())
  folders.sort((a, b) => statSync(b).mtimeMs - statSync(a).mtimeMs)
  for (const old of folders.slice(most)) rmSync(old, { recursive: true, force: true })
}

/** Runs a TypeScript file of the project, with its path aliases, to its end. */
export function runTypeScript(file, args = [], env = {}) {
  return run('npx', ['tsx', '--tsconfig', 'tsconfig.paths.json', file, ...args], env)
}
