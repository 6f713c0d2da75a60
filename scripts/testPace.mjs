// How fast this machine is just now: the limits of time in tests follow it.
import { Worker } from 'node:worker_threads'

const WORK = `
  const { parentPort } = require('node:worker_threads')
  const spin = n => { let x = 0; for (let i = 0; i < n; i++) x = (x * 31 + i) | 0; return x }
  spin(1e6)
  const start = performance.now()
  spin(6e7)
  parentPort.postMessage(performance.now() - start)`
const QUIET = 500 // milliseconds the work takes on a quiet machine of the slower sort
const MOST = 6

/**
 * Wall time of a fixed piece of work on two threads at once, over what it takes on a quiet machine: 1 where it is as fast or
 * faster, 2 where it takes twice as long because the machine is slow or busy with something else; 6 at most.
 */
export async function measurePace() {
  const times = await Promise.all([timeOnce(), timeOnce()])
  return Math.min(MOST, Math.max(1, Math.max(...times) / QUIET))
}

function timeOnce() {
  return new Promise((resolve, reject) => {
    const worker = new Worker(WORK, { eval: true })
    worker.once('message', resolve)
    worker.once('error', reject)
  })
}
