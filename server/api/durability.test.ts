import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Client, testServer } from '#server/testing/server'
import { until } from '#server/testing/until'
import { doc } from '#server/testing/world'
import { binary, isAlive, removeCluster, startCluster, type Cluster } from '#scripts/cluster.mjs'
import type { DraftView } from '#shared/contributing/thread'

/** Processes of a database server: the one started and all it started. */
function family(pid: number): number[] {
  const children = readdirSync('/proc')
    .filter(n => /^\d+$/.test(n))
    .filter(n => {
      try {
        return Number(readFileSync(`/proc/${n}/stat`, 'utf8').split(') ')[1]!.split(' ')[1]) === pid
      } catch {
        return false
      }
    })
  return [pid, ...children.map(Number)]
}

async function gone(pids: readonly number[]) {
  while (pids.some(isAlive)) await new Promise(resolve => setImmediate(resolve))
}

describe('what was acknowledged', () => {
  let folder: string
  let cluster: Cluster
  beforeAll(async () => {
    folder = join(mkdtempSync(join(tmpdir(), 'jovrel-')), 'postgres')
    cluster = await startCluster(folder)
    // the seeded database the other tests are copied from, in a cluster that may die
    const dump = join(folder, '..', 'seeded.dump')
    execFileSync(binary('pg_dump'), ['-Fc', '-Z0', '-f', dump, process.env.JOVREL_TEST_DATABASE!])
    execFileSync(binary('createdb'), ['--maintenance-db', cluster.url('postgres'), 'jovrel'])
    execFileSync(binary('pg_restore'), ['--exit-on-error', '-d', cluster.url(), dump])
  })
  afterAll(async () => {
    await cluster.stop()
    removeCluster(folder)
    rmSync(join(folder, '..'), { recursive: true, force: true })
  })

  it('survives the sudden death of server and database, once', async () => {
    const server = await testServer(cluster.url())
    const liv = await new Client(server.address).signIn('liv@northmere.example')
    const { body: session } = await liv.json<{ session: { seminars: Array<{ id: string }> } }>(
      'GET',
      '/api/session',
    )
    const { body: plan } = await liv.json<{ activities: Array<{ id: string; title: string }> }>(
      'GET',
      `/api/seminars/${session.session.seminars[0]!.id}/plan`,
    )
    const place = `/api/activities/${plan.activities.find(a => a.title.includes('dredge'))!.id}`
    const before = (await liv.thread(`${place}/contributions`)).body.contributions
    const parentId = before[0]!.id
    const sent = { key: v7(), parentId, doc: doc('Acknowledged, and then the lights went out.') }
    const acknowledged = await liv.json<{ id: string }>('POST', `${place}/contributions`, sent)
    const draft = await liv.json<DraftView>('PUT', `${place}/draft`, {
      parentId: before[1]!.id,
      doc: doc('half a thought'),
      baseVersion: null,
    })
    expect([acknowledged.status, draft.status]).toEqual([200, 200])

    const dying = [server.child.pid!, ...family(cluster.pid!)]
    for (const pid of dying)
      try {
        process.kill(pid, 'SIGKILL')
      } catch {
        /* it has gone with its parent */
      }
    await gone(dying)

    cluster = await startCluster(folder)
    const again = await testServer(cluster.url())
    try {
      const back = await new Client(again.address).signIn('liv@northmere.example')
      // the browser, which may not have had the answer, sends the same post again
      const resent = await back.json<{ id: string }>('POST', `${place}/contributions`, sent)
      expect(resent.body.id).toBe(acknowledged.body.id)
      const { body } = await back.thread(`${place}/contributions`)
      expect(
        body.contributions.filter(c => c.view === 'whole' && c.html?.includes('Acknowledged')),
      ).toHaveLength(1)
      expect(body.contributions).toHaveLength(before.length + 1)
      expect(body.drafts.find(d => d.parentId === before[1]!.id)?.words).toBe(3)
    } finally {
      await again.stop()
    }
  })

  it('keeps every acknowledged save of 200 marks when server and database die in the middle, and none twice', async () => {
    const server = await testServer(cluster.url())
    const ines = await new Client(server.address).signIn('ines@northmere.example')
    const { body: session } = await ines.json<{ session: { seminars: Array<{ id: string }> } }>(
      'GET',
      '/api/session',
    )
    const { body: plan } = await ines.json<{ activities: Array<{ id: string; title: string }> }>(
      'GET',
      `/api/seminars/${session.session.seminars[0]!.id}/plan`,
    )
    const place = `/api/activities/${plan.activities.find(a => a.title.includes('dredge'))!.id}`
    const { body: desk } = await ines.json<{ students: Array<{ id: string }> }>('GET', `${place}/desk`)
    const students = desk.students.slice(0, 20)
    const save = (id: string, n: number) => ({
      key: v7(),
      baseVersion: n,
      steps: [],
      citations: [],
      letter: doc(`save ${n + 1} for ${id}`),
      markerNote: '',
      lateWaived: false,
    })
    const acknowledged = new Map<string, number>()
    let sent = 0
    const dying = [server.child.pid!, ...family(cluster.pid!)]
    // every student's record is saved ten times over, one after another; a hundred acknowledgements in, the lights go out
    const unsure = new Map<string, object>() // the save each record was in when they did
    await Promise.all(
      students.map(async ({ id }) => {
        for (let n = 0; n < 10; n++) {
          const body = save(id, n)
          unsure.set(id, body)
          const answer = await ines
            .json<{ version: number }>('PUT', `${place}/records/${id}/mark`, body)
            .catch(() => null)
          if (answer?.status !== 200) return
          acknowledged.set(id, answer.body.version)
          unsure.delete(id)
          if (++sent === 100)
            for (const pid of dying)
              try {
                process.kill(pid, 'SIGKILL')
              } catch {
                /* it has gone with its parent */
              }
        }
      }),
    )
    await gone(dying)
    expect(sent).toBeGreaterThanOrEqual(100)

    cluster = await startCluster(folder)
    const again = await testServer(cluster.url())
    try {
      const back = await new Client(again.address).signIn('ines@northmere.example')
      for (const { id } of students) {
        const { body: record } = await back.json<{ mark: { version: number; letter: unknown } }>(
          'GET',
          `${place}/records/${id}`,
        )
        const known = acknowledged.get(id) ?? 0
        // what was acknowledged is there; at most the one save that was on its way has come on top
        expect([known, known + 1]).toContain(record.mark.version)
        if (record.mark.version > 0)
          expect(JSON.stringify(record.mark.letter)).toContain(`save ${record.mark.version} for ${id}`)
        const open = unsure.get(id)
        if (!open) continue
        // sent again with its key, it counts once, whether it had been in or not
        const resent = await back.json<{ version: number }>('PUT', `${place}/records/${id}/mark`, open)
        expect(resent.body.version).toBe(known + 1)
      }
    } finally {
      await again.stop()
    }
  })

  it('is served again to everyone once the database has restarted under load; who asks meanwhile is answered', async () => {
    const server = await testServer(cluster.url())
    try {
      const asking = await askOnAndOn(server.address, 40)
      await until('a load', async () => asking.meanwhile.length > 60)
      const dying = family(cluster.pid!)
      process.kill(cluster.pid!, 'SIGINT') // ends every connection, whatever it does
      await gone(dying)
      cluster = await startCluster(folder, [], { port: Number(new URL(cluster.url()).port) })
      asking.databaseIsBack()
      const isAnswered = async () => {
        asking.requireAnswers()
        return asking.after.length > 200
      }
      await until('answers', isAnswered, 180)
      await asking.end()
      expect([200, 503]).toEqual(expect.arrayContaining([...new Set(asking.meanwhile)]))
      expect([...new Set(asking.after)]).toEqual([200])
    } finally {
      await server.stop()
    }
  })
})

/**
 * So many readers, each of whom asks again as soon as they are answered.
 *
 * @returns with how they were answered: what was asked once the database was back, and the rest
 */
async function askOnAndOn(address: string, readers: number) {
  const people = await Promise.all(
    ['liv', 'nico', 'malin', 'ines'].map(who => new Client(address).signIn(`${who}@northmere.example`)),
  )
  const { body } = await people[0]!.json<{ session: { seminars: Array<{ id: string }> } }>(
    'GET',
    '/api/session',
  )
  const path = `/api/seminars/${body.session.seminars[0]!.id}`
  const meanwhile: number[] = []
  const after: number[] = []
  let isBack = false
  let isOver = false
  let failure: unknown
  const asking = Array.from({ length: readers }, async (_, n) => {
    while (!isOver) {
      const answers = isBack ? after : meanwhile
      try {
        const answer = await people[n % people.length]!.send('GET', path)
        await answer.text()
        answers.push(answer.status)
      } catch (error) {
        failure ??= error // nobody answers any more
        return
      }
    }
  })
  return {
    meanwhile,
    after,
    databaseIsBack: () => (isBack = true),
    requireAnswers() {
      if (failure) throw failure
    },
    async end() {
      isOver = true
      await Promise.all(asking)
    },
  }
}
