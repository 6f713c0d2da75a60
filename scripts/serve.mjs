// Starts the built server and keeps it until the command ends; everything started is stopped, in order.
import { spawn } from 'node:child_process'

/** Starts the server and waits until it answers. */
export async function startServer(entry, env, { quiet = false } = {}) {
  const child = spawn(process.execPath, [entry], {
    env: {
      ...process.env,
      NODE_ENV: 'production', // Vue's own checks of templates and properties are for developing, and take half of a page's time
      JOVREL_ADDRESS: process.env.JOVREL_ADDRESS ?? `http://127.0.0.1:${env.PORT}`,
      ...env,
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: String(env.PORT),
    },
    stdio: ['ignore', quiet ? 'ignore' : 'ignore', 'inherit'],
    detached: true,
  })
  let ended = false
  child.on('exit', () => {
    ended = true
  })
  const address = `http://127.0.0.1:${env.PORT}`
  for (const until = Date.now() + 180_000; ;) {
    if (ended) throw new Error('The server ended right after it was started; what it said is above.')
    const answer = await fetch(`${address}/api/session`).catch(() => null)
    if (answer?.ok) break
    if (Date.now() > until) throw new Error('The server did not answer within three minutes.')
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  return {
    address,
    child,
    stop: () =>
      new Promise(resolve => {
        if (ended) return resolve()
        child.on('exit', resolve)
        child.kill('SIGTERM')
        setTimeout(() => child.kill('SIGKILL'), 5000).unref()
      }),
    onEnd: listener => (ended ? listener() : child.on('exit', listener)),
  }
}

const SHORTEST_LIFE = 10_000 // milliseconds; a server that ends sooner would only end again

/** Keeps a server running: one that ends by itself is started anew, unless it had only just been started. */
export async function keepServer(start) {
  let server = await start()
  let isStopping = false
  const listeners = []
  const watch = () => {
    const startedAt = Date.now()
    server.onEnd(async () => {
      if (isStopping) return
      if (Date.now() - startedAt < SHORTEST_LIFE) return listeners.forEach(listener => listener())
      console.error('The server has ended by itself and is started anew.')
      try {
        server = await start()
        watch()
      } catch (error) {
        console.error(error.message)
        listeners.forEach(listener => listener())
      }
    })
  }
  watch()
  return {
    address: server.address,
    stop() {
      isStopping = true
      return server.stop()
    },
    onEnd: listener => listeners.push(listener),
  }
}

/** Runs `stop` once, at Ctrl C, at SIGTERM, or when the server ends by itself. */
export function untilStopped(server, stop) {
  let stopping = false
  const end = async () => {
    if (stopping) return
    stopping = true
    await stop()
    process.exit(0)
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, end)
  server.onEnd(() => {
    if (!stopping) {
      console.error('The server has ended.')
      end()
    }
  })
}

/** One argument such as `--port 3100` or `--port=3100`. */
export function argument(name) {
  const args = process.argv.slice(2)
  const at = args.findIndex(a => a === name || a.startsWith(`${name}=`))
  if (at < 0) return undefined
  return args[at].includes('=') ? args[at].split('=')[1] : args[at + 1]
}
