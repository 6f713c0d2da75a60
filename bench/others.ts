import { randomBytes } from 'node:crypto'
import { v7 } from 'uuid'
import { hostileFiles } from '#server/testing/hostileFiles'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'

interface Waits {
  readonly what: string
  /** How long another person waited for My week meanwhile, milliseconds, from the shortest to the longest. */
  readonly waits: readonly number[]
  readonly seconds: number // how long the work took
}
const week = (world: World) => `/api/seminars/${world.seminar.id}/week`

/** Asks again as soon as it is answered, for as long as the work goes on. */
async function askMeanwhile(other: Client, path: string, work: () => Promise<unknown>) {
  const waits: number[] = []
  let isOver = false
  const began = performance.now()
  const working = work().finally(() => {
    isOver = true
  })
  while (!isOver) {
    const start = performance.now()
    await (await other.send('GET', path)).arrayBuffer()
    waits.push(performance.now() - start)
  }
  await working
  return { waits: waits.sort((a, b) => a - b), seconds: (performance.now() - began) / 1000 }
}

/** How long one person waits while another has the server read, pack and render what costs it most. */
export async function measureOthers(): Promise<Waits[]> {
  const world = await testWorld({ own: true, minutes: false })
  try {
    const [ines, liv] = await Promise.all([world.as('ines'), world.as('liv')])
    const seminar = `/api/seminars/${world.seminar.id}`
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNk+A8AAQUBAScY42YAAAAASUVORK5CYII=',
      'base64',
    )
    const picture = Buffer.concat([png, randomBytes(19_900_000)])
    // made before it is timed: it holds this process up, in which the other person asks
    const file = JSON.stringify({
      id: v7(),
      name: 'large.png',
      base64: picture.toString('base64'),
      transcript: null,
    })
    const hostile = await hostileFiles()
    const add = (name: string) => {
      const { bytes } = hostile.find(f => f.name === name)!
      const text = {
        key: v7(),
        id: v7(),
        name,
        base64: Buffer.from(bytes).toString('base64'),
        transcript: null,
      }
      return ines.send('POST', `${seminar}/texts`, text)
    }
    const works: ReadonlyArray<readonly [string, () => Promise<unknown>]> = [
      ['nothing', () => new Promise(resolve => setTimeout(resolve, 3000))],
      ['a picture of 20 MB is kept', () => ines.send('POST', `${seminar}/files`, file)],
      [
        'a picture of 20 MB goes out',
        async () => {
          const { id } = JSON.parse(file) as { id: string }
          await (await ines.send('GET', `/api/files/${id}`)).arrayBuffer()
        },
      ],
      ['a paper is read that unpacks without end', () => add('inflated twice.pdf')],
      ['an archive is read that unpacks to 200 MB', () => add('unpacks.epub')],
      ['a document with tables in tables is read', () => add('tables in tables.docx')],
      [
        'the seminar goes out as an archive',
        async () => (await ines.send('GET', `${seminar}/archive`)).arrayBuffer(),
      ],
      [
        'all letters go out as PDF',
        async () => (await ines.send('GET', `${seminar}/results?form=pdf`)).arrayBuffer(),
      ],
      [
        'results go out as a workbook',
        async () => (await ines.send('GET', `${seminar}/results?form=xlsx`)).arrayBuffer(),
      ],
    ]
    for (let i = 0; i < 30; i++) await (await liv.send('GET', week(world))).arrayBuffer() // the first ones compile
    const measured: Waits[] = []
    for (const [what, work] of works) measured.push({ what, ...(await askMeanwhile(liv, week(world), work)) })
    return measured
  } finally {
    await world.close()
  }
}

/** The rows of the table: each against how long the same takes while nothing else goes on. */
export async function printOthers(row: (what: string, figure: string) => void): Promise<void> {
  const [rest, ...busy] = await measureOthers()
  const at = (waits: readonly number[], share: number) => waits[Math.floor((waits.length - 1) * share)]!
  const middle = (waits: readonly number[]) => at(waits, 0.5)
  const said = (waits: readonly number[]) =>
    `median ${middle(waits).toFixed(0)} ms, 95 % within ${at(waits, 0.95).toFixed(0)} ms, longest ${waits.at(-1)!.toFixed(0)} ms`
  for (const { what, waits, seconds } of busy) {
    const ratio = (middle(waits) / middle(rest!.waits)).toFixed(1)
    row(
      `another person’s week while ${what}, against while nothing is (ratio of medians)`,
      `${ratio} (${said(waits)}, of ${waits.length} in ${seconds.toFixed(1)} s; nothing: ${said(rest!.waits)})`,
    )
  }
}
