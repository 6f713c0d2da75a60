import { pathToFileURL } from 'node:url'
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib'
import type { Browser } from '@playwright/test'
import { eq, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { seededRandom } from '#core/chance/seededRandom'
import { makeAnchor, type TextAnchor } from '#core/kinds/reading/anchor'
import { partAt } from '#core/kinds/reading/reading'
import * as t from '#server/database/schema'
import { keepText } from '#server/kinds/reading/library'
import type { TextTasks } from '#server/kinds/reading/textThread'
import { readText } from '#server/kinds/reading/readText'
import { ThreadPool } from '#server/threads/threadPool'
import { email, type World } from '#server/testing/world'

const WORDS =
  'the mole toll harbour stone of and widow share pilot oath herring lasts barge quay tide silt guild paid built first second for a to in was roll chain nobody could say who had seen it before the water rose again over steps'.split(
    ' ',
  )
// the thread as it was built with the server that is measured
const thread = new URL('./threads/textThread.mjs', pathToFileURL(process.env.JOVREL_TEST_BUILD!))
const pool = new ThreadPool<TextTasks>(() => thread, { threads: 1, waiting: 1, megabytes: 2000 })
const PAGES = 300
const LINES = 34
const NOTES = 5000

const lineOf = (random: () => number) =>
  Array.from({ length: 11 }, () =>
    random() < 0.12 ? `n${Math.floor(random() * 9000)}` : WORDS[Math.floor(random() * WORDS.length)],
  ).join(' ')

/**
 * Notes on a text of so many pages, of which words were changed here and there. @returns once: finds all of
 * them again in a thread of its own, and how long others waited meanwhile at most, in milliseconds
 */
export function anchorsOf(
  pages: number,
  notes: number,
  changed: number,
): { readonly once: () => Promise<{ readonly found: number; readonly waited: number }> } {
  const random = seededRandom(pages)
  const words = Array.from({ length: pages * LINES }, () => lineOf(random))
    .join(' ')
    .split(' ')
  const text = words.join(' ')
  const anchors: TextAnchor[] = Array.from({ length: notes }, () => {
    const start = Math.floor(random() * (text.length - 300))
    return makeAnchor(text, start, start + 10 + Math.floor(random() * 120))
  })
  const after = words
    .flatMap(w => {
      if (random() > changed) return [w]
      if (random() < 0.5) return []
      return [w, 'mended']
    })
    .join(' ')
  return {
    async once() {
      let [last, waited] = [performance.now(), 0]
      const beat = setInterval(() => {
        const now = performance.now()
        waited = Math.max(waited, now - last)
        last = now
      }, 5)
      try {
        return {
          found: (await pool.run('findPassages', [after, anchors], 600_000)).filter(Boolean).length,
          waited,
        }
      } finally {
        clearInterval(beat)
      }
    },
  }
}

/** A paper of 300 pages with 5,000 notes, set as the reading of the article. */
async function fill(world: World): Promise<void> {
  const random = seededRandom(7)
  const paper = await PDFDocument.create()
  const font = await paper.embedFont(StandardFonts.TimesRoman)
  for (let n = 0; n < PAGES; n++) {
    const page = paper.addPage([420, 560])
    for (let line = 0; line < LINES; line++)
      page.drawText(lineOf(random), { x: 36, y: 520 - line * 14.5, size: 10, font })
  }
  const bytes = Buffer.from(await paper.save())
  const [ines, people] = [
    await world.enrolment('ines'),
    await world.db.select().from(t.enrolments).where(eq(t.enrolments.role, 'student')),
  ]
  const read = await readText(bytes, 'long.pdf', null)
  const id = v7()
  await keepText(
    world.db,
    // keeping a text asks for nothing else of who keeps it
    { enrolment: ines, seminar: world.seminar } as never,
    { id, title: 'A long paper', credit: '', supplier: null },
    read,
    { bytes, name: 'long.pdf', transcript: null },
    new Date('2026-10-12T08:00:00Z'),
  )
  await world.db.delete(t.nods)
  await world.db.execute(
    sql`delete from contributions where activity_id = ${world.calm.id} and parent_id is not null`,
  )
  await world.db.execute(sql`delete from contributions where activity_id = ${world.calm.id}`)
  await world.db
    .update(t.activities)
    .set({
      settings: sql`${t.activities.settings} || ${JSON.stringify({ reading: { textId: id, from: 1, to: null, writeFirst: 'none' } })}::jsonb`,
    })
    .where(eq(t.activities.id, world.calm.id))
  const rows = Array.from({ length: NOTES }, (_, i) => {
    const start = Math.floor(random() * (read.words.length - 200))
    const passage = makeAnchor(read.words, start, start + 20 + Math.floor(random() * 60))
    const [noteId, at, text] = [
      v7(),
      new Date(Date.parse('2026-10-12T09:00:00Z') + i * 20_000),
      lineOf(random),
    ]
    return {
      id: noteId,
      seminarId: world.seminar.id,
      activityId: world.calm.id,
      authorId: people[i % people.length]!.id,
      type: 'note' as const,
      threadId: noteId,
      openerId: people[i % people.length]!.id,
      state: 'shown' as const,
      seq: i + 1,
      doc: { type: 'doc' },
      html: `<p>${text}</p>`,
      text,
      words: 11,
      detail: {
        note: {
          kind: i % 7 === 0 ? ('question' as const) : ('note' as const),
          part: partAt(read.parts, start).number,
          passage,
          area: null,
          time: null,
          tags: [],
          to: null,
          at: { start: passage.start, end: passage.end },
          how: 'here' as const,
        },
      },
      madeAt: at,
      savedAt: at,
      shownAt: at,
    }
  })
  for (let i = 0; i < rows.length; i += 500)
    await world.db.insert(t.contributions).values(rows.slice(i, i + 500))
}

/** In the page: notes at each frame what stands for the first time, in milliseconds since the address was asked for. */
const WATCH = `(() => {
  const steps = globalThis.steps = {}
  const signs = {
    shell: () => document.querySelector('main .row'),
    alive: () => document.querySelector('#__nuxt')?.__vue_app__?.$nuxt?.isHydrating === false,
    picture: () => [...document.querySelectorAll('.row canvas')].some(c => c.width > 300),
    words: () => document.querySelector('.row [data-words] .words span'),
    note: () => document.querySelector('.over .letter'),
  }
  const look = () => {
    for (const [step, isThere] of Object.entries(signs))
      if (!(step in steps) && isThere()) steps[step] = performance.now()
    if (Object.keys(steps).length < Object.keys(signs).length) requestAnimationFrame(look)
  }
  requestAnimationFrame(look)
})()`

/** Milliseconds from the address to each step of the first page. */
export interface ReadingSteps {
  readonly shell: number
  readonly alive: number
  readonly picture: number
  readonly words: number
  readonly note: number
}

/** Opens that paper cold and scrolls it. @returns milliseconds; memory in megabytes after */
export async function measureReading(browser: Browser, world: World) {
  await fill(world)
  const context = await browser.newContext({
    baseURL: world.address,
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
  })
  await context.request.post('/api/session', {
    data: { email: email('liv'), password: 'harbour' },
    headers: { origin: world.address },
  })
  const page = await context.newPage()
  await page.addInitScript(WATCH)
  await page.goto(`/seminars/${world.seminar.id}/activities/${world.calm.id}`)
  await page.waitForFunction(
    () => Object.keys((globalThis as unknown as { steps: object }).steps).length === 5, // what the watch above keeps
    null,
    { timeout: 60_000 },
  )
  const steps = await page.evaluate<ReadingSteps>('steps')
  const scroll = await page.evaluate<{ frames: number[]; blank: number; pages: number }>(`(async () => {
    const main = [...document.querySelectorAll('main')].at(-1)
    const frames = []; let blank = 0; let last = performance.now(); let seen = 0
    for (let i = 0; i < 260; i++) {
      main.scrollBy(0, 90)
      await new Promise(requestAnimationFrame)
      const now = performance.now(); frames.push(now - last); last = now
      const box = main.getBoundingClientRect()
      const row = document.elementFromPoint(box.left + 300, box.top + 300)?.closest('.row')
      if (row) { seen++; if (!row.querySelector('[data-words] .words span')) blank++ }
    }
    return { frames, blank, pages: document.querySelectorAll('canvas').length, seen }
  })()`)
  const session = await context.newCDPSession(page)
  await session.send('HeapProfiler.collectGarbage')
  const { usedSize } = await session.send('Runtime.getHeapUsage')
  await context.close()
  return { steps, ...scroll, heap: usedSize / 1e6, notes: NOTES, paperPages: PAGES }
}
