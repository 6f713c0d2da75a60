import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { setImmediate } from 'node:timers/promises'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { removeCluster, startCluster, type Cluster } from '#scripts/cluster.mjs'
import { openDatabase, rowsOf } from './client'

const WORKERS = 8
/** JOVREL_RESTARTS=100 for the long proof. */
const RESTARTS = Number(process.env.JOVREL_RESTARTS ?? 4)

describe('the pool', () => {
  let folder: string
  let cluster: Cluster
  beforeAll(async () => {
    folder = join(mkdtempSync(join(tmpdir(), 'jovrel-')), 'postgres')
    cluster = await startCluster(folder, ['fsync=off'])
  })
  afterAll(async () => {
    await cluster.stop()
    removeCluster(folder)
    rmSync(dirname(folder), { recursive: true, force: true })
  })

  it('answers every worker again each time the database is restarted under load, with right answers only', async () => {
    const url = cluster.url('postgres')
    const port = Number(new URL(url).port)
    const { db, close } = openDatabase(url, 4) // fewer than ask: some wait for a connection when it breaks
    let going = true
    let failed = 0
    const wrong: unknown[] = []
    const answered = new Array<number>(WORKERS).fill(0)
    const work = async (worker: number) => {
      for (let n = 0; going; n++)
        try {
          const asked = `${worker}:${n}`
          const [row] = await rowsOf<{ said: string }>(db, sql`select ${asked}::text as said`)
          if (row?.said !== asked) wrong.push([asked, row])
          answered[worker]!++
        } catch {
          failed++
          await setImmediate()
        }
    }
    const workers = Array.from({ length: WORKERS }, (_, i) => work(i))
    const allAnswered = async () => {
      const before = [...answered]
      while (answered.some((n, i) => n === before[i])) await setImmediate()
    }
    await allAnswered()
    for (let i = 0; i < RESTARTS; i++) {
      await cluster.stop()
      cluster = await startCluster(folder, ['fsync=off'], { port })
      await allAnswered()
    }
    going = false
    await Promise.all(workers)
    await close()
    expect(wrong).toEqual([])
    expect(failed).toBeGreaterThan(0) // the load was there when the database went
  })
})
