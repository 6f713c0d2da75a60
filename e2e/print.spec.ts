import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { and, eq, inArray, like } from 'drizzle-orm'
import type { Page } from '@playwright/test'
import * as t from '#server/database/schema'
import type { World } from '#server/testing/world'
import { expect, open, test } from './fixtures'

const pathOf = (world: World, activityId: string) => `/seminars/${world.seminar.id}/activities/${activityId}`
const letters = (text: string) => text.normalize('NFKC').replace(/[^\p{L}\p{N}]+/gu, '')

/**
 * Prints as somebody does by Ctrl P. A tag is a word of its note.
 * @returns the letters on the sheets, without spaces, and how many sheets there are
 */
async function onPaper(page: Page): Promise<{ text: string; sheets: number }> {
  await page.evaluate('void (window.printed = new Promise(done => { window.print = done }))')
  await page.keyboard.press('Control+p')
  await page.evaluate('window.printed')
  await page.emulateMedia({ media: 'print' })
  const controls = page.locator(
    'button:not(.tag):visible, select:visible, input:visible, textarea:visible, .v-btn:visible',
  )
  expect(await controls.allTextContents(), 'controls on paper').toEqual([])
  const pdf = await getDocument({ data: new Uint8Array(await page.pdf({ format: 'A4' })), verbosity: 0 })
    .promise
  const sheets: string[] = []
  for (let n = 1; n <= pdf.numPages; n++) {
    const { items } = await (await pdf.getPage(n)).getTextContent()
    sheets.push(items.map(item => ('str' in item ? item.str : '')).join(''))
  }
  await page.emulateMedia({ media: null })
  return { text: letters(sheets.join('')), sheets: pdf.numPages }
}
const missingIn = (paper: string, texts: readonly string[]) => [
  ...new Set(texts.flatMap(text => text.split(/\s+/).map(letters)).filter(word => !paper.includes(word))),
]
const written = async (world: World, activityId: string) =>
  (
    await world.db
      .select({ text: t.contributions.text })
      .from(t.contributions)
      .where(and(eq(t.contributions.activityId, activityId), inArray(t.contributions.state, ['shown'])))
  ).map(c => c.text)

test('a talk goes on paper with every word, also what is folded on the screen', async ({ as, world }) => {
  const page = await as('ines')
  await open(page, pathOf(world, world.breakwater.id))
  await expect(page.getByRole('button', { name: /^all \d+ words/ }).first()).toBeVisible()
  const { text, sheets } = await onPaper(page)
  const posts = await written(world, world.breakwater.id)
  expect(posts.length).toBeGreaterThan(50)
  expect(missingIn(text, posts)).toEqual([])
  expect(sheets).toBeGreaterThan(5)
})

test('an article goes on paper with its margin, a paper with its pages', async ({ as, world }) => {
  const page = await as('ines')
  for (const [{ id }, title] of [
    [world.calm, 'Who may wait?%'],
    [world.roll, 'The Toll Roll%'],
  ] as const) {
    await open(page, pathOf(world, id))
    const { text } = await onPaper(page)
    const [version] = await world.db
      .select({ words: t.textVersions.words })
      .from(t.textVersions)
      .innerJoin(t.texts, eq(t.texts.id, t.textVersions.textId))
      .where(like(t.texts.title, title))
    expect(missingIn(text, [version!.words])).toEqual([])
    expect(missingIn(text, await written(world, id))).toEqual([])
  }
})
test('a page of a wiki goes on paper, and a gradebook on as many sheets as its columns take', async ({
  as,
  world,
}) => {
  const page = await as('ines')
  await open(page, pathOf(world, world.city.id))
  const shown = await page.locator('article .prose.text').innerText()
  expect(missingIn((await onPaper(page)).text, [shown])).toEqual([])

  await open(page, `/seminars/${world.seminar.id}/gradebook`)
  const titles = await page.getByRole('columnheader').locator('b').allTextContents()
  const names = await world.db
    .select({ name: t.enrolments.familyName })
    .from(t.enrolments)
    .where(and(eq(t.enrolments.seminarId, world.seminar.id), eq(t.enrolments.role, 'student')))
  expect(titles.length).toBeGreaterThan(8)
  const { text, sheets } = await onPaper(page)
  expect(missingIn(text, [...titles, ...names.map(n => n.name)])).toEqual([])
  expect(sheets).toBeGreaterThanOrEqual(Math.ceil(titles.length / 8))
})
