import { createHash } from 'node:crypto'
import { strFromU8, unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { testWorld, type World } from '#server/testing/world'

const ID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g
const INSTANT = /\d{4}-\d\d-\d\d[T ]\d\d:\d\d:\d\d(?:\.\d+)?(?:Z|[+-]\d\d(?::?\d\d)?)/g
/** A row of aliases: it alone has a thread and a name. */
const IS_ALIAS = /"name": "[^"]*", "thread_id":/

/** What people of the demo did, they did at a full minute; anything else was taken from the clock of this run. */
const isOfDemo = (instant: string) => new Date(instant.replace(' ', 'T')).getTime() % 60_000 === 0

/** The lines of a file without what chance and the clock put into them: each id is "id", an instant of this run "now". */
const withoutChance = (text: string): string[] =>
  text
    .split('\n')
    .map(line => line.replace(ID, 'id').replace(INSTANT, at => (isOfDemo(at) ? at : 'now')))
    // which remarks of readers without names a letter begins with, is chance
    .map(line => (line.includes('One reader: ') ? 'a letter with remarks of readers' : line))
    // what somebody goes by where names are hidden, is drawn
    .map(line => (IS_ALIAS.test(line) ? 'what somebody goes by' : line))
    .sort()

/** SHA-256 of what each file of an archive says. Files of the seminar go by their bytes alone, the sums by none. */
function digests(parts: Record<string, Uint8Array>): Record<string, string> {
  const files = Object.entries(parts).filter(([name]) => name !== 'SHA256SUMS')
  const sha = (of: string | Uint8Array) => createHash('sha256').update(of).digest('hex').slice(0, 16)
  const attached = files.filter(([name]) => name.startsWith('files/'))
  const described = files.filter(([name]) => !name.startsWith('files/'))
  return {
    ...Object.fromEntries(
      described.map(([name, bytes]) => [name, sha(withoutChance(strFromU8(bytes)).join('\n'))]),
    ),
    'files/': sha(
      attached
        .map(([, bytes]) => sha(bytes))
        .sort()
        .join('\n'),
    ),
  }
}

describe('the archive of the demo', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())

  it('is, but for ids, what it was: code that is put in order changes nothing that is stored', async () => {
    const ines = await world.as('ines')
    const answer = await ines.send('GET', `/api/seminars/${world.seminar.id}/archive`)
    const parts = unzipSync(new Uint8Array(await answer.arrayBuffer()))
    expect(digests(parts)).toMatchSnapshot()
  })
})
