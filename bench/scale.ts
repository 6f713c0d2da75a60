import { keepDue } from '#server/services/standing/keepStandings'
import { v7 } from 'uuid'
import { enlarge, writeMore } from '#server/testing/enlarge'
import { holdAll } from '#server/testing/holdAll'
import { queriesOf, TEST_NOW, type Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'

const TIMES = 20
const ASKED = 15

interface FirstByte {
  readonly what: string
  /** Milliseconds from asking to the first byte, of the demo and of the larger seminar. */
  readonly small: number
  readonly large: number
}

/** First bytes of pages that show one number of much work: of the demo, and of a seminar with so many times its contributions. */
export async function measureScale(): Promise<FirstByte[]> {
  const small = await testWorld({ own: true, minutes: false })
  const large = await testWorld({ own: true, minutes: false })
  try {
    await writeMore(large.db, TIMES)
    await keepDue(large.db, new Date(TEST_NOW))
    const pages = [
      ['term plan', 'ines', '/plan'],
      ['marking queue', 'ines', '/marking'],
      ['My week', 'liv', '/week'],
      ['marking desk', 'ines', (world: World) => `/activities/${world.breakwater.id}/desk`],
      ['gradebook', 'ines', '/gradebook'],
    ] as const
    const measured: FirstByte[] = []
    for (const [what, who, at] of pages) {
      const times = await Promise.all(
        [small, large].map(async world => {
          const path = `/seminars/${world.seminar.id}${typeof at === 'string' ? at : at(world)}`
          return { client: await world.as(who), path, took: [] as number[] }
        }),
      )
      // in turn, so that whatever else the machine does falls on both
      for (let i = 0; i < ASKED; i++)
        for (const one of times) one.took.push(await firstByte(one.client, one.path))
      const [few, many] = times.map(t => [...t.took].sort((a, b) => a - b)[ASKED >> 1]!)
      measured.push({ what, small: few!, large: many! })
    }
    return measured
  } finally {
    await Promise.all([small.close(), large.close()])
  }
}

async function firstByte(client: Client, path: string): Promise<number> {
  const start = performance.now()
  const answer = await client.send('GET', path)
  const took = performance.now() - start
  await answer.arrayBuffer()
  if (answer.status !== 200) throw new Error(`${path}: ${answer.status}`)
  return took
}

/** Statements that the data of each page takes, and acts of one person. */
async function countStatements(): Promise<ReadonlyArray<readonly [what: string, queries: number]>> {
  const world = await testWorld({ own: true, minutes: false, env: { JOVREL_SHOW_QUERIES: '1' } })
  try {
    const clients = { ines: await world.as('ines'), liv: await world.as('liv') }
    const seminar = `/api/seminars/${world.seminar.id}`
    const activity = `/api/activities/${world.breakwater.id}`
    const [one] = await holdAll(world)
    const asked = [
      ['frame of every page', 'ines', 'GET', seminar],
      ['term plan', 'ines', 'GET', `${seminar}/plan`],
      ['marking queue', 'ines', 'GET', `${seminar}/marking`],
      ['My week', 'liv', 'GET', `${seminar}/week`],
      ['marking desk', 'ines', 'GET', `${activity}/desk`],
      ['one record on it', 'ines', 'GET', `${activity}/records/${one}`],
      ['gradebook', 'ines', 'GET', `${seminar}/gradebook`],
      ['a talk', 'liv', 'GET', `${activity}/contributions`],
      ['returning a mark', 'ines', 'POST', `${activity}/return`],
    ] as const
    const counted: Array<readonly [string, number]> = []
    for (const [what, who, method, path] of asked) {
      const body = method === 'POST' ? { key: v7(), enrolmentIds: [one] } : undefined
      const answer = await clients[who].send(method, path, body)
      await answer.arrayBuffer()
      if (answer.status !== 200) throw new Error(`${path}: ${answer.status}`)
      counted.push([what, queriesOf(answer)])
    }
    return counted
  } finally {
    await world.close()
  }
}

const MARKS = 300

/** Milliseconds that one mark takes to be returned, and all of a class. */
async function measureReturns(): Promise<{ readonly one: number; readonly all: number }> {
  const world = await testWorld({ own: true, minutes: false })
  try {
    await enlarge(world.db, 13)
    const ines = await world.as('ines')
    const giveBack = async (enrolmentIds: readonly string[]) => {
      const start = performance.now()
      const path = `/api/activities/${world.breakwater.id}/return`
      const answer = await ines.send('POST', path, { key: v7(), enrolmentIds })
      if (answer.status !== 200) throw new Error(await answer.text())
      return performance.now() - start
    }
    const took: number[] = []
    for (let i = 0; i < 3; i++) await giveBack((await holdAll(world)).slice(0, 1)) // warm
    for (let i = 0; i < ASKED; i++) took.push(await giveBack((await holdAll(world)).slice(0, 1)))
    const all: number[] = []
    for (let i = 0; i < 3; i++) all.push(await giveBack((await holdAll(world)).slice(0, MARKS)))
    const middle = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!
    return { one: middle(took), all: middle(all) }
  } finally {
    await world.close()
  }
}

export async function printScale(row: (what: string, figure: string) => void): Promise<void> {
  for (const { what, small, large } of await measureScale())
    row(
      `${what}: first byte with ${TIMES} times the demo’s contributions, against the demo (ratio)`,
      `${(large / small).toFixed(2)} (${large.toFixed(0)} ms against ${small.toFixed(0)} ms)`,
    )
  const counted = await countStatements()
  row('statements of one answer', counted.map(([what, n]) => `${what} ${n}`).join(', '))
  const { one, all } = await measureReturns()
  row(
    `${MARKS} marks returned at once, against one (ratio)`,
    `${(all / one).toFixed(1)} (${all.toFixed(0)} ms against ${one.toFixed(0)} ms)`,
  )
}
