import { StandardFonts, PDFDocument } from '@cantoo/pdf-lib'
import { eq } from 'drizzle-orm'
import type { Page } from '@playwright/test'
import * as t from '#server/database/schema'
import type { World } from '#server/testing/world'
import { choose } from './chooseWords'
import { drawn, expect, open, test } from './fixtures'
import { ODD_PASSAGES, passageOf, setOddText } from './oddText'

const pathOf = (world: World, activityId: string) => `/seminars/${world.seminar.id}/activities/${activityId}`
const note = (page: Page, words: string) => page.locator('article.note').filter({ hasText: words })

test('a class talks in the margin of a paper: words are chosen, the page parts, a question is put, answered and settled, at every zoom', async ({
  as,
  world,
}) => {
  const [liv, nico] = [await as('liv'), await as('nico')]
  await open(nico, pathOf(world, world.roll.id))
  await open(liv, pathOf(world, world.roll.id))
  await expect(note(liv, 'In law these two participles').first()).toBeVisible() // it opens at the first page that is set
  await expect(liv.locator('.letter').first()).toBeVisible()
  await choose(liv, 'A toll is usually taken', 'goods')
  await expect(liv.getByText('nobody has noted these words')).toBeVisible()
  await liv.keyboard.press('q')
  await liv
    .getByRole('textbox', { name: 'Your question', exact: true })
    .fill('Which goods would there have been to take it on?')
  await liv.getByLabel('Tags').fill('measures, goods')
  await liv.keyboard.press('Shift+Tab')
  await expect(liv.getByText('saved as draft')).toBeVisible()
  await liv.getByRole('button', { name: /^Ask/ }).click()
  await expect(note(liv, 'Which goods would')).toContainText('no answer yet')
  expect(await passageOf(world, 'Which goods would there have been to take it on?')).toBe(
    'A toll is usually taken on goods',
  )
  // larger, the line stands under the same words
  const under = async () => {
    const box = await liv.locator('.words').getByText('A toll is usually taken').first().boundingBox()
    return (
      box &&
      liv.locator('.under.own').evaluateAll(
        (lines, b) =>
          lines.some(l => {
            const r = l.getBoundingClientRect()
            return Math.abs(r.top - (b.y + b.height)) < 8 && Math.abs(r.left - b.x) < 6
          }),
        box,
      )
    )
  }
  await expect.poll(under).toBe(true)
  await liv.getByRole('button', { name: 'Larger' }).click()
  await expect(liv.getByText('120 %')).toBeVisible()
  await expect.poll(under).toBe(true)
  // Nico's open page has it; he answers, and Liv says that she has her answer
  await expect(note(nico, 'Which goods would')).toBeAttached()
  await note(nico, 'Which goods would').getByRole('button', { name: 'answer Liv' }).click()
  await nico.getByRole('textbox', { name: /^Your answer/ }).fill('Herring, mostly, and salt for it.')
  await nico.keyboard.press('Control+Enter')
  await expect(note(liv, 'Which goods would').getByText('Herring, mostly')).toBeAttached()
  await note(liv, 'Which goods would').getByRole('button', { name: 'mark as answered' }).click()
  await expect(note(liv, 'Which goods would')).toContainText('answered')
  await liv.reload()
  await expect(note(liv, 'Which goods would')).toContainText('Herring, mostly')
})

test('by keys alone: sentence by sentence, a note that leads to another passage, kept when the tab closes; words are found in the text', async ({
  as,
  world,
}) => {
  const liv = await as('liv')
  await open(liv, pathOf(world, world.calm.id))
  // at once: a key pressed before the text is drawn waits for it
  await liv.keyboard.press('.')
  await expect(liv.getByRole('group', { name: 'The chosen words' })).toBeVisible()
  await liv.keyboard.press('<')
  await liv.keyboard.press('l')
  await expect(liv.getByText('Now choose the passage it leads to')).toBeVisible()
  await liv.getByRole('button', { name: /^Section 5/ }).click() // far away: what is being written stays
  await choose(liv, 'The answer has no monument')
  await expect(liv.getByText('leads to “The answer has no monument”')).toBeVisible()
  await liv.getByRole('textbox', { name: 'Why this leads there' }).fill('Cost here, and no monument there.')
  await expect(liv.getByText('saved as draft')).toBeVisible()
  await liv.reload()
  await liv
    .getByText(/^begun/)
    .getByRole('button')
    .click()
  await expect(liv.getByRole('textbox', { name: 'Why this leads there' })).toContainText('Cost here')
  await liv.getByRole('textbox', { name: 'Why this leads there' }).press('Control+Enter')
  await expect(note(liv, 'Cost here')).toContainText('→ “The answer has no monument”')
  await note(liv, 'Cost here')
    .getByRole('button', { name: /The answer has no monument/ })
    .click()
  await expect(liv.locator('.sought').first()).toBeVisible()
  await liv.locator('main').last().focus()
  await liv.keyboard.press('/')
  await liv.keyboard.type('windlass')
  await liv.keyboard.press('Enter')
  await expect(liv.getByText('1 of 1')).toBeVisible()
  await liv.getByRole('group', { name: 'Whose notes' }).getByRole('button', { name: 'mine' }).click()
  await expect(liv.locator('article.note')).toHaveCount(2)
  await liv
    .getByRole('group', { name: 'Whose notes' })
    .getByRole('button', { name: /questions without/ })
    .click()
  await expect(note(liv, 'Was there a form')).toBeVisible()
})

test('odd letters anchor to the same words: soft hyphens, ligatures, right-to-left words and emoji, across paragraphs and sections', async ({
  as,
  world,
}) => {
  await setOddText(world)
  const liv = await as('liv')
  await open(liv, pathOf(world, world.calm.id))
  const write = async (from: string, to: string, said: string, exact: string) => {
    await choose(liv, from, to)
    await liv.keyboard.press('n')
    await liv.getByRole('textbox', { name: 'Your note' }).fill(said)
    await liv.keyboard.press('Control+Enter')
    await expect(note(liv, said)).toBeVisible()
    expect(await passageOf(world, said)).toBe(exact)
  }
  for (const p of ODD_PASSAGES) await write(p.from, p.to, p.said, p.exact)
  await liv.reload()
  await expect(liv.locator('.under.own').first()).toBeVisible()
  await expect(liv.locator('.over .letter')).toHaveCount(3)
})

test('a frame is drawn on a scanned page and takes a note; notes whose words are gone stand at the end', async ({
  as,
  world,
}) => {
  const [text] = await world.db.select().from(t.texts).where(eq(t.texts.form, 'paper'))
  const scan = await PDFDocument.create()
  for (let n = 0; n < 7; n++)
    scan.addPage([420, 560]).drawRectangle({ x: 60, y: 300, width: 200, height: 120 })
  const answer = await (
    await world.as('ines')
  ).json('POST', `/api/seminars/${world.seminar.id}/texts/${text!.id}/versions`, {
    key: crypto.randomUUID(),
    name: 'scan.pdf',
    base64: Buffer.from(await scan.save()).toString('base64'),
  })
  expect(answer.status).toBe(200)
  const liv = await as('liv', { dark: true })
  await open(liv, pathOf(world, world.roll.id))
  await expect(liv.locator('.lost')).toContainText('57 notes whose words are no longer in this text')
  const page = liv.locator('[data-row="3"] .page.picture')
  await page.scrollIntoViewIfNeeded()
  await expect(page).toBeVisible()
  const box = (await page.boundingBox())!
  await liv.mouse.move(box.x + 80, box.y + 120)
  await liv.mouse.down()
  await liv.mouse.move(box.x + 320, box.y + 260, { steps: 4 })
  await liv.mouse.up()
  await liv.getByRole('textbox', { name: 'Your note' }).fill('A dark rectangle, and nothing else.')
  await liv.keyboard.press('Control+Enter')
  await expect(note(liv, 'A dark rectangle')).toBeVisible()
  await expect(liv.locator('[data-row="3"] .patch.own')).toBeVisible()
})

test('on a phone notes open below their line, in the dark, without sideways scrolling', async ({
  as,
  world,
}) => {
  const liv = await as('liv', { width: 390, height: 800, dark: true })
  await open(liv, pathOf(world, world.calm.id))
  await liv.locator('.over .letter').first().click()
  await expect(liv.locator('.below')).toContainText('About one part in three hundred')
  await liv.locator('.below').getByRole('button', { name: 'answer Solongo' }).click()
  await expect(liv.getByRole('textbox', { name: /^Your answer/ })).toBeVisible()
  expect(await liv.evaluate('document.documentElement.scrollWidth <= innerWidth')).toBe(true)
})

test('on a phone a reading opens at its first set page, and its pages stay at hand', async ({
  as,
  world,
}) => {
  const liv = await as('liv', { width: 390, height: 800, touch: true })
  await open(liv, pathOf(world, world.roll.id))
  const pages = liv.getByRole('navigation', { name: 'Pages' })
  const set = liv.locator('[data-row="3"]')
  await expect(pages.getByRole('button', { name: /^Page 3,/ })).toHaveAttribute('aria-current', 'page')
  await expect
    .poll(async () => {
      const [strip, row] = [await pages.boundingBox(), await set.boundingBox()]
      return strip && row ? Math.max(Math.abs(strip.y), Math.abs(row.y - strip.y - strip.height)) : null
    })
    .toBeLessThan(2) // pixels: the strip at the top of the window, the page right below it
  await pages.getByRole('button', { name: /^Page 6,/ }).tap()
  await expect(liv.locator('[data-row="6"]')).toBeInViewport()
  await expect(pages).toBeInViewport()
})

test('zooming, a smaller window and a turned tablet leave a reader at the same words', async ({
  as,
  world,
}) => {
  const liv = await as('liv', { width: 1280, height: 800 })
  await open(liv, pathOf(world, world.roll.id))
  const line = liv.locator('.words span', { hasText: 'A toll is usually taken' }).first()
  await expect(line).toBeAttached()
  // the line comes to where one reads
  await line.evaluate(l => l.scrollIntoView({ block: 'start' }))
  await liv.mouse.move(500, 400)
  await liv.mouse.wheel(0, -60)
  const top = async () => {
    await drawn(liv)
    return (await line.boundingBox())!.y
  }
  let before = Number.NaN
  const isStill = async () => {
    const last = before
    before = await top()
    return before === last
  }
  await expect.poll(isStill).toBe(true)
  await liv.getByRole('button', { name: 'Larger' }).click()
  await liv.getByRole('button', { name: 'Larger' }).click()
  await expect(liv.getByText('144 %')).toBeVisible()
  await expect.poll(async () => Math.abs((await top()) - before)).toBeLessThan(40) // pixels: a line and a half
  // on a tablet the page scrolls, under its list of pages
  await liv.setViewportSize({ width: 820, height: 800 })
  await expect(line).toBeInViewport()
  await liv.setViewportSize({ width: 1280, height: 800 })
  await expect.poll(async () => Math.abs((await top()) - before)).toBeLessThan(40)
})

test('on a phone the list of pages follows whoever scrolls', async ({ as, world }) => {
  const liv = await as('liv', { width: 390, height: 800, touch: true })
  await open(liv, pathOf(world, world.roll.id))
  const pages = liv.getByRole('navigation', { name: 'Pages' })
  await expect(pages.getByRole('button', { name: /^Page 3,/ })).toHaveAttribute('aria-current', 'page')
  await liv.locator('[data-row="5"]').evaluate(row => row.scrollIntoView({ block: 'start' }))
  await expect(pages.getByRole('button', { name: /^Page 5,/ })).toHaveAttribute('aria-current', 'page')
})

test('a recording plays while its transcript follows; its notes know their time', async ({ as, world }) => {
  const ines = await as('ines')
  await open(ines, pathOf(world, world.pilot.id))
  await expect(ines.getByText('4:30')).toBeVisible()
  await ines.getByRole('slider', { name: 'Place in the recording' }).fill('100')
  await expect(ines.locator('.said.on')).toHaveCount(1)
  await ines.keyboard.press('Tab')
  await ines.locator('main').last().focus()
  await ines.keyboard.press('t')
  await expect(ines.getByRole('group', { name: 'The chosen words' })).toBeVisible()
  await ines.keyboard.press('n')
  await ines.getByRole('textbox', { name: 'Your note' }).fill('He has this from others.')
  await ines.keyboard.press('Control+Enter')
  await expect(note(ines, 'He has this from others')).toContainText(/1:\d\d/)
})

test('an instructor adds a paper and pages of a book, sets them, brings a new version, and shows where the talk is', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/422/)
  const ines = await as('ines')
  await open(ines, `/seminars/${world.seminar.id}/library`)
  const paper = await PDFDocument.create()
  const font = await paper.embedFont(StandardFonts.TimesRoman)
  for (const n of [1, 2])
    paper.addPage([300, 400]).drawText(`Page ${n} of the ballast book has this many words.`, {
      x: 20,
      y: 300,
      size: 12,
      font,
      maxWidth: 260,
    })
  paper.addPage([300, 400])
  await ines.locator('input[type=file][accept*=".epub"]').setInputFiles({
    name: 'ballast-book.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from(await paper.save()),
  })
  await expect(ines.getByText('“ballast-book” is in the library.')).toBeVisible()
  await expect(ines.getByText('Page 3 holds no text')).toBeVisible()
  await ines.locator('input[type=file][accept*=".epub"]').setInputFiles({
    name: 'broken.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.7 no more'),
  })
  await expect(ines.getByText(/This PDF is damaged/)).toBeVisible()
  await ines.getByRole('button', { name: 'From the book supplier …' }).click()
  await ines.getByRole('button', { name: 'The measure of a hull' }).click()
  await ines.getByRole('button', { name: 'Import into the library' }).click()
  await expect(ines.getByLabel('Title of The Price of Shelter, pages 4–6')).toBeVisible()
  // a new version of the article: notes follow their words, and what is lost is listed
  const [calm] = await world.db
    .select({ html: t.textVersions.html })
    .from(t.textVersions)
    .innerJoin(t.texts, eq(t.texts.id, t.textVersions.textId))
    .where(eq(t.texts.form, 'article'))
  const better = calm!.html
    .join('\n')
    .replace('They are unlike in everything but this', 'They are in nothing alike but this')
    .replace('It is the only petition I know that asks to be paid for an absence.', '')
  await ines
    .getByLabel('A new version of Who may wait?')
    .setInputFiles({ name: 'who-may-wait.html', mimeType: 'text/html', buffer: Buffer.from(better) })
  await expect(ines.getByText('One could not be placed.')).toBeVisible()
  await ines.getByRole('link', { name: 'Saoirse Valdemar' }).click()
  await expect(ines.locator('.lost')).toContainText('asks to be paid for an absence')
  // to class
  await ines.getByRole('link', { name: 'Where the talk is, to show in class' }).click()
  await expect(ines.getByRole('heading', { name: 'Where the talk is' })).toBeVisible()
  await ines.keyboard.press('s')
  const large = ines.getByRole('dialog', { name: 'To show in class' })
  await expect(large).toContainText('A chain is the most honest of the three')
  await ines.keyboard.press('j')
  await expect(large).toContainText('2 of 6')
  await ines.keyboard.press('Escape')
  await expect(large).toBeHidden()
  // set in the plan
  await open(ines, `${pathOf(world, world.essays.id)}/plan`)
  await ines.getByRole('button', { name: 'Reading', exact: true }).click()
  await ines.getByRole('button', { name: /a text you choose/ }).click()
  await ines
    .getByRole('option', { name: /ballast-book/ })
    .or(ines.getByRole('menuitem', { name: /ballast-book/ }))
    .or(ines.getByText('ballast-book'))
    .first()
    .click()
  await expect(ines.getByText(/to page 3|page 3/).first()).toBeVisible()
})
