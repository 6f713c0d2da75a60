import type { Page } from '@playwright/test'
import { eq } from 'drizzle-orm'
import * as t from '#server/database/schema'
import { expect, open, test } from './fixtures'

const bar = (page: Page, title: string) =>
  page.getByRole('group', { name: new RegExp(`^${title.replace(/[?]/g, '\\?')}: `) })

test('bars on the term plan are moved by pointer and by keys, with what depends on them, and put back', async ({
  world,
  as,
}) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/plan`)
  const essays = bar(page, 'Draft essays')
  await essays.scrollIntoViewIfNeeded()
  await expect(essays).toHaveAccessibleName(/write until Sun 1 Nov, 23:59, review until Sun 8 Nov, 23:59/)
  const end = page.getByRole('button', { name: /^End of write, Sun 1 Nov/ })
  const box = (await end.boundingBox())!
  const week = (await page.locator('.ribbon button').nth(3).boundingBox())!.width
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + (week * 2) / 7, box.y + box.height / 2, { steps: 6 })
  await expect(essays).toHaveAccessibleName(/write until Tue 3 Nov, 23:59, review until Tue 10 Nov, 23:59/) // while dragging
  await page.mouse.up()
  await expect(page.getByText(/“Draft essays” moved: write until Tue 3 Nov, 23:59/)).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(essays).toHaveAccessibleName(/write until Sun 1 Nov, 23:59, review until Sun 8 Nov/)

  // by keys: a day, then a week
  const letters = bar(page, 'Letters home')
  await letters.focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(page.getByText(/“Letters home” moved/)).toBeVisible()
  await expect(letters).toHaveAccessibleName(/write until Mon 16 Nov, 23:59/)

  // a move that contradicts itself is refused in words and stays where it was
  await page
    .getByRole('button', { name: /^End of review/ })
    .first()
    .focus()
  for (let i = 0; i < 2; i++) await page.keyboard.press('Shift+ArrowLeft')
  await expect(
    page.getByText('The end of reviewing would come before its beginning. It stays where it was.'),
  ).toBeVisible()

  // something published: what it would do, and whether students are told, is asked first
  await bar(page, 'City pages').focus()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('dialog', { name: 'A published activity was moved' })).toContainText(
    'Nobody’s standing would change',
  )
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(bar(page, 'City pages')).toHaveAccessibleName(/write until Sun 25 Oct/)
})

test('the term plan opens at today with most of the term in sight, names in view, and bars walked by arrows', async ({
  world,
  as,
}) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/plan`)
  const lower = page.getByRole('region', { name: 'Hours this plan asks for' })
  const whole = async () => {
    const end = (await lower.boundingBox())!.y
    const boxes = await page
      .locator('.chart li .bar')
      .evaluateAll(all =>
        all.map(bar => bar.getBoundingClientRect()).map(({ top, bottom }) => ({ top, bottom })),
      )
    const top = (await page.locator('.scroll').boundingBox())!.y
    return boxes.filter(box => box.top >= top && box.bottom <= end).length
  }
  expect(await whole()).toBeGreaterThanOrEqual(12)
  await expect(page.getByText('today, Wed 14')).toBeInViewport()
  // names and what is said beside them stay within the chart
  const chart = (await page.locator('.chart').boundingBox())!
  for (const box of await page
    .locator('.chart .name, .chart .alone:not(.visually-hidden)')
    .evaluateAll(all =>
      all.map(el => el.getBoundingClientRect()).map(({ left, right }) => ({ left, right })),
    )) {
    expect(box.left).toBeGreaterThanOrEqual(chart.x - 1)
    expect(box.right).toBeLessThanOrEqual(chart.x + chart.width + 1)
  }
  await page.setViewportSize({ width: 1440, height: 900 })
  expect(await whole()).toBe(16)

  // one bar is on the way of the tabulator; arrows go on from there
  await expect(page.locator('.bar[tabindex="0"]')).toHaveCount(1)
  await bar(page, 'Where do you arrive from?').focus()
  await page.keyboard.press('ArrowDown')
  await expect(bar(page, 'Walls of Sundvik')).toBeFocused()
  await page.keyboard.press('Tab')
  await expect(page.getByRole('button', { name: /^End of write, Sun 27 Sep/ })).toBeFocused()
  await page.keyboard.press('End')
  await expect(page.locator('.bar.movable').last()).toBeFocused()
  await expect(page.locator('.bar[tabindex="0"]')).toHaveCount(1)
  await page.keyboard.press('Home')
  await expect(bar(page, 'Where do you arrive from?')).toBeFocused()

  // on a phone the term is opened at today, across
  await page.setViewportSize({ width: 390, height: 844 })
  await open(page, `/seminars/${world.seminar.id}/plan`)
  await expect(page.getByText('today, Wed 14')).toBeInViewport()
})

test('a plan check is mended with one click, and undone', async ({ world, as }) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/plan`)
  await page.getByRole('button', { name: 'under Plan checks' }).click()
  const check = page.locator('.checks .say', { hasText: 'One entry only' })
  await check.getByRole('button', { name: 'Ask for three' }).click()
  await expect(page.getByText('Done in “Letters home”.')).toBeVisible()
  await expect(check).toHaveCount(0)
  await page.keyboard.press('Control+z') // the undo of a notice has a key
  await expect(check).toHaveCount(1)
})

test('two instructors in one activity: what only one changed is joined, what both changed is asked, nothing is lost', async ({
  world,
  as,
  expectedErrors,
}) => {
  expectedErrors.push(/409/)
  const [one, two] = [await as('ines'), await as('ines')]
  for (const page of [one, two])
    await open(page, `/seminars/${world.seminar.id}/activities/${world.essays.id}/plan`)
  await one.getByRole('textbox', { name: 'Title' }).fill('Essays, first reading')
  await one.getByRole('button', { name: /Words of each remark: 20/ }).click()
  await one.getByRole('spinbutton', { name: 'Words of each remark' }).fill('60')
  await one.keyboard.press('Escape')
  await expect(one.getByText('saved', { exact: true })).toBeVisible()
  await two.getByRole('textbox', { name: 'Title' }).fill('Essays, in draft')
  await expect(two.getByRole('alert').filter({ hasText: 'saved this meanwhile' })).toBeVisible()
  await expect(two.getByRole('button', { name: /Words of each remark: 60/ })).toBeVisible() // only one changed it
  await two.getByRole('button', { name: /^theirs: Essays, first reading/ }).isVisible()
  await two.getByRole('button', { name: /^mine: Essays, in draft/ }).click()
  await expect(two.getByText('saved', { exact: true })).toBeVisible()
  await open(one, `/seminars/${world.seminar.id}/activities/${world.essays.id}/plan`)
  await expect(one.getByRole('textbox', { name: 'Title' })).toHaveValue('Essays, in draft')
})

test('what is typed into a plan while the connection is lost is kept and sent', async ({
  world,
  as,
  expectedErrors,
}) => {
  // it may be on its way by itself already when the page is loaded anew: the two are joined then (409)
  expectedErrors.push(/ERR_INTERNET_DISCONNECTED|Failed to fetch|409/)
  const page = await as('ines')
  const address = `/seminars/${world.seminar.id}/activities/${world.essays.id}/plan`
  await open(page, address)
  await page.context().setOffline(true)
  await page.getByRole('textbox', { name: 'Title' }).fill('Written without a line')
  await expect(page.getByText('Jovrel could not be reached.')).toBeVisible()
  await page.context().setOffline(false)
  await page.reload()
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Written without a line')
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
})

test('a rubric is typed through like a table, and marks given under it stay under their version', async ({
  world,
  as,
}) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/library`)
  await page.getByRole('button', { name: 'Write a rubric' }).click()
  const cell = (row: number, column: number) => page.locator(`[data-row="${row}"][data-column="${column}"]`)
  await cell(0, 0).fill('Listens')
  await page.keyboard.press('Enter')
  await expect(cell(0, 1)).toBeFocused()
  await page.keyboard.type('Hears')
  await page.keyboard.press('Enter')
  await page.keyboard.type('1-2')
  await page.keyboard.press('Enter')
  await expect(cell(0, 3)).toBeFocused()
  await page.keyboard.type('Takes in what was said.')
  await page.keyboard.press('Tab')
  await expect(cell(0, 2)).toHaveValue('1–2')
  await cell(0, 1).focus()
  await page.keyboard.press('Alt+ArrowRight')
  await expect(cell(0, 2)).toBeFocused()
  await cell(0, 9).focus()
  await page.keyboard.press('Enter') // past the last cell: a new criterion
  await expect(cell(1, 0)).toBeFocused()
  await expect(page.getByText('This criterion wants a name.')).toBeVisible()
  await page.keyboard.type('Answers')
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
  await expect(page.locator('.total')).toHaveText('10 points')
  await page.getByRole('button', { name: 'Move Answers with the arrow keys' }).focus()
  await page.keyboard.press('ArrowUp')
  await expect(cell(0, 0)).toHaveValue('Answers')

  await open(page, `/seminars/${world.seminar.id}/library`)
  await page.getByRole('link', { name: 'Seminar contribution', exact: true }).click()
  await cell(0, 0).fill('Use of evidence and its limits')
  await expect(page.getByText(/35 marks were given under version 1 and will stay under it/)).toBeVisible()
  await page.getByRole('button', { name: 'Make version 2' }).click()
  await expect(
    page.getByText('Version 2 is made. Marks given under version 1 stay as they are.'),
  ).toBeVisible()
})

test('people are dragged between groups, or moved by keys; what happens to their work is said', async ({
  world,
  as,
}) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/groups`)
  const group = (name: string) => page.locator(`[data-group="${name}"]`)
  const first = group('Stones').locator('li').first()
  const name = (await first.locator('.p').textContent())!
  const [from, to] = [
    (await first.locator('.p').boundingBox())!,
    (await group('Money').locator('li').nth(1).boundingBox())!,
  ]
  await page.mouse.move(from.x + 20, from.y + 8)
  await page.mouse.down()
  await page.mouse.move(from.x + 32, from.y + 14, { steps: 4 })
  // held over a place, as a hand holds it: never quite still
  let nudge = 0
  await expect(async () => {
    await page.mouse.move(to.x + 40 + (nudge++ % 2) * 6, to.y + to.height / 2, { steps: 4 })
    await expect(group('Money').locator('li').filter({ hasText: name })).toHaveCount(1, { timeout: 400 })
  }).toPass()
  await page.mouse.up()
  await expect(page.locator('[data-group="Money"] li[data-person]').filter({ hasText: name })).toHaveCount(1)
  await expect(page.getByText(new RegExp(`${name.split(' ')[0]} is in Money now`))).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(group('Stones')).toContainText(name)
  await page.getByLabel(`Move ${name}`).selectOption({ label: 'Ships' })
  await expect(group('Ships')).toContainText(name)
})

test('Ctrl K finds an activity, a person and what somebody wrote, and does things by name', async ({
  world,
  as,
}) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/plan`)
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find' }).fill('breakwater')
  await expect(page.getByRole('option', { name: /Who paid for the breakwater/ }).first()).toBeVisible()
  await page.getByRole('combobox', { name: 'Find' }).fill('Rintala')
  await expect(page.getByRole('option', { name: /Oona Rintala/ })).toBeVisible()
  await page.getByRole('combobox', { name: 'Find' }).fill('library')
  await expect(page.getByRole('option', { name: /Library of rubrics/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/library$/)
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find' }).fill('see as a student')
  await page.getByRole('option', { name: /See as a student/ }).click()
  await expect(page.getByText('You see this seminar as a practice student does.')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Wednesday, 14 October' })).toBeVisible()
  await page.getByRole('button', { name: 'Back to teaching' }).click()
  await expect(page.getByRole('heading', { name: 'Term plan' })).toBeVisible()
})

test('planning pages hold on a phone, in the dark, without sideways scrolling', async ({ world, as }) => {
  const page = await as('ines', { width: 390, height: 800, dark: true })
  for (const path of ['people', 'groups', 'settings', `activities/${world.essays.id}/plan`]) {
    await open(page, `/seminars/${world.seminar.id}/${path}`)
    await expect(page.locator('main').first()).toBeVisible()
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390)
  }
})

test('kinds are tried in the composer: an activity keeps the settings of its kind alone, and changing back brings them back', async ({
  world,
  as,
}) => {
  const [blog] = await world.db.select().from(t.activities).where(eq(t.activities.title, 'Letters home'))
  const settings = async () => {
    const [row] = await world.db.select().from(t.activities).where(eq(t.activities.id, blog!.id))
    return row!.settings
  }
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/activities/${blog!.id}/plan`)
  await page.getByRole('button', { name: 'Whose blog' }).click()
  await page.getByRole('radio', { name: 'a blog for each student' }).check()
  await expect.poll(async () => (await settings()).layout).toBe('own')

  await page.getByRole('button', { name: 'Wiki', exact: true }).click()
  await expect(page.getByText('Comments can be withdrawn for')).toBeVisible()
  await expect.poll(async () => Object.keys(await settings())).toContain('wiki')
  expect(await settings()).not.toHaveProperty('layout')

  await page.getByRole('button', { name: 'Blog', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Whose blog' })).toHaveText('a blog for each student')
  await expect.poll(async () => (await settings()).layout).toBe('own')
  expect(await settings()).not.toHaveProperty('wiki')
})
