import { eq } from 'drizzle-orm'
import { pace } from '#server/testing/pace'
import * as t from '#server/database/schema'
import { chooseWords, expect, open, test } from './fixtures'

test('a marker cites, quotes, takes a phrase, sees the letter as the student will, returns it and takes it back', async ({
  as,
  world,
}) => {
  const page = await as('ines')
  const kadri = await world.enrolment('kadri')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk?student=${kadri.id}`)
  for (const key of ['4', '3', '3', 'a']) await page.locator('body').press(key)
  await page.getByRole('group', { name: 'Use of evidence' }).getByRole('heading').click()
  const line = (await page.locator('[data-line]').first().innerText()).slice(0, 30).trim()
  await chooseWords(page, '[data-line]', line)
  await page.locator('body').press('e')
  await page.getByRole('button', { name: 'Quote it in the letter' }).click()
  const letter = page.getByRole('textbox', { name: 'Letter to Kadri' })
  await expect(letter).toContainText('Dear {first name},')
  await expect(letter).toContainText(`“${line}”`)

  // a phrase, found by words, with its placeholders filled
  await page.locator('h1').click()
  await page.locator('body').press('p')
  await page.getByRole('combobox', { name: 'Phrases' }).fill('one example away')
  await expect(page.getByRole('option', { name: /one example away/ })).toBeVisible()
  await page.getByRole('combobox', { name: 'Phrases' }).press('Enter')
  await expect(letter).toContainText('8 of 8 for use of evidence: you were one example away')
  await expect(page.locator('.state')).toHaveText('saved')

  await page.locator('h1').click()
  await page.locator('body').press('v')
  const preview = page.getByRole('dialog', { name: 'What Kadri will see' })
  await expect(preview).toContainText('Dear Kadri,')
  await expect(preview).toContainText('tests, 8 of 8')
  await preview.getByRole('button', { name: 'Close' }).click()

  await page.getByRole('button', { name: 'Return now' }).click()
  const strip = page.getByRole('navigation', { name: 'Students' })
  await expect(strip.getByRole('button', { name: 'Kadri Ilves, returned' })).toBeVisible()
  await page.getByRole('button', { name: 'Undo return' }).first().click()
  await expect(strip.getByRole('button', { name: 'Kadri Ilves, held' })).toBeVisible()
  await page.getByRole('button', { name: 'history' }).click()
  await expect(page.getByRole('region', { name: 'History of this mark' })).toContainText(
    'took the returned mark back',
  )
})

test('names are hidden in the strip, in what was written and in the letter, and what is stored keeps them', async ({
  as,
  world,
}) => {
  const page = await as('ines')
  const mireille = await world.enrolment('mireille')
  await open(
    page,
    `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk?student=${mireille.id}`,
  )
  await expect(page.getByRole('textbox', { name: 'Letter to Mireille' })).toContainText('Dear Mireille')
  await page.getByRole('button', { name: 'Hide names' }).click()
  await expect(page.getByRole('navigation', { name: 'Students' })).not.toContainText('Estrada-Holm')
  const everything = await page.locator('.marking').innerText()
  for (const name of ['Mireille', 'Estrada', 'Rasmus', 'Okonjo', 'Saoirse', 'Valdemar'])
    expect(everything).not.toContain(name)
  const letter = page.getByRole('textbox', { name: /^Letter to Student \d+$/ })
  await expect(letter).toContainText(/Dear Student \d+/)
  // a passage that holds a name is cited with the words as they stand, and writing puts the name back
  await chooseWords(page, '[data-line]', ' is right that the exemption bought consent')
  await page.locator('body').press('e')
  await letter.click()
  await page.keyboard.press('Control+End')
  await page.keyboard.type(' More of this.')
  await expect(page.locator('.state')).toHaveText('saved')
  await page.getByRole('button', { name: 'Show names' }).click()
  await expect(page.getByRole('textbox', { name: 'Letter to Mireille' })).toContainText('Dear Mireille')
  await expect(page.getByRole('textbox', { name: 'Letter to Mireille' })).toContainText('More of this.')
  await expect(
    page.locator('mark.cited').filter({ hasText: 'is right that the exemption bought consent' }),
  ).toBeVisible()
})

test('one criterion is judged across everyone by keys, and stands on the desk', async ({ as, world }) => {
  const page = await as('henrik')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/criteria`)
  await page.getByRole('button', { name: 'without a step' }).click()
  const first = page.locator('section.one').first()
  await expect(first.getByRole('radio').first()).toBeVisible()
  const name = (await first.getAttribute('aria-label'))!
  await page.locator('body').press('3')
  await expect(page.getByRole('region', { name }).getByRole('radio', { checked: true })).toHaveText('6')
  await expect(page.getByText(/^saved$/)).toBeVisible()
  await page.getByRole('region', { name }).getByRole('link', { name: 'on the desk' }).click()
  await expect(
    page.getByRole('group', { name: 'Use of evidence' }).getByRole('radio', { checked: true }),
  ).toHaveText('6')
})

test('every figure of the gradebook says where it comes from; a mark is changed by keys with a reason, and undone', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/422/)
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/gradebook`)
  const cell = page.getByRole('gridcell', { name: /^Who paid for the breakwater\?, Liv Brandt/ })
  await cell.click()
  const from = page.getByRole('region', { name: 'Where this comes from' })
  await expect(from).toContainText('It counts, in Discussions (30 %).')
  await expect(from).toContainText('makes 19 of 25')
  await page.keyboard.press('2')
  await page.getByLabel('Points, of 25').pressSequentially('2')
  await page.getByRole('button', { name: /Set and go down/ }).click()
  await expect(page.getByRole('alert')).toContainText('Say why')
  await page.getByLabel('Why').fill('The oral went well.')
  await page.getByLabel('Why').press('Enter')
  await expect(cell).toHaveText('19 → 22')
  await expect(
    page
      .getByRole('status')
      .filter({ hasText: 'Liv: 22 for Who paid for the breakwater?. Held until you return it.' }),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(cell).toHaveText('19')

  await page.getByRole('gridcell', { name: /%/ }).first().click()
  await expect(from).toContainText('Final figure')
  await expect(from).toContainText('Discussions')

  // a column put away and brought back, staying so for this reader
  await page.getByRole('columnheader', { name: /Walls of Sundvik/ }).click()
  await page.getByRole('button', { name: 'hide this column' }).click()
  await expect(page.getByRole('columnheader', { name: /Walls of Sundvik/ })).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('button', { name: 'show one hidden' })).toBeVisible()
  await page.getByRole('columnheader', { name: /Who paid/ }).click()
  await page.getByRole('link', { name: 'How the marks are spread' }).click()
  await expect(page.getByRole('img', { name: 'Students by points' }).locator('svg').first()).toBeVisible()
})

test('a file of marks is looked at before it is taken', async ({ as, world }) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/gradebook`)
  await page.getByRole('button', { name: 'Import marks' }).click()
  const dialog = page.getByRole('dialog', { name: 'Import marks' })
  await dialog.getByLabel('Into').selectOption({ label: 'Who paid for the breakwater?' })
  await dialog.getByLabel('File').setInputFiles({
    name: 'm.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('name;points\nLiv Brandt;20,5\nNobody;3\n'),
  })
  await expect(dialog).toContainText('One mark would change')
  await expect(dialog).toContainText('Line 3, “Nobody”: nobody here goes by this.')
  await dialog.getByLabel('Where they come from').fill('the oral')
  await dialog.getByRole('button', { name: 'Import 1 mark' }).click()
  await expect(page.getByRole('gridcell', { name: /^Who paid for the breakwater\?, Liv Brandt/ })).toHaveText(
    '19 → 20.5',
  )
})

test('a student tries what a mark would make, and reads what is still needed; on a phone, too', async ({
  as,
  world,
}) => {
  const page = await as('liv', { width: 390, height: 800 })
  await open(page, `/seminars/${world.seminar.id}/grades`)
  const total = page.locator('.total b')
  const before = await total.innerText()
  await page.getByRole('button', { name: 'What if …' }).click()
  await page.getByLabel(/What if Should the harbour board dredge/).fill('25')
  await expect(total).not.toHaveText(before)
  await page.getByRole('button', { name: 'As it is' }).click()
  await expect(total).toHaveText(before)
  await page.getByRole('button', { name: '90 %' }).click()
  await expect(page.locator('.goal')).toContainText(/About \d+(\.\d)? % of the points|it comes to|reached/)
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true)
})

test('contributions are marked in the talk itself and make the mark', async ({ as, world }) => {
  await world.db.execute(
    `update activities set rubric_version_id = null, points = 1000, combine = '{"by":"count","need":2}' where title like 'Should the harbour%'`,
  )
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  const post = page.getByRole('article', { name: /^Liv Brandt/ }).first()
  await post.getByRole('button', { name: 'counts', exact: true }).click()
  await expect(post.getByRole('button', { name: 'counts', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  const liv = await world.enrolment('liv')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.dredge.id}/desk?student=${liv.id}`)
  await expect(page.getByRole('region', { name: 'Points' }).locator('.total')).toContainText('5of 10')
})

test('of more than a hundred columns those in sight are drawn, and the last is reached by key and by pointer', async ({
  as,
  world,
}) => {
  const { id: _, groupPlanId: _plan, textId: _text, ...row } = world.breakwater
  const titles = Array.from({ length: 120 }, (_, i) => `Toll ${i + 1}`)
  const made = await world.db
    .insert(t.activities)
    .values(titles.map((title, i) => ({ ...row, title, position: 500 + i })))
    .returning({ activityId: t.activities.id })
  const phases = await world.db.select().from(t.phases).where(eq(t.phases.activityId, world.breakwater.id))
  await world.db
    .insert(t.phases)
    .values(
      made.flatMap(({ activityId }) => phases.map(({ id: _phase, ...phase }) => ({ ...phase, activityId }))),
    )
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/gradebook`)
  const grid = page.getByRole('grid', { name: 'Gradebook' })
  const heads = grid.getByRole('columnheader')
  await expect(grid).toHaveAttribute('aria-colcount', /1[23]\d/)
  await expect.poll(() => heads.count()).toBeLessThan(40)
  const more = page.getByText(/\d+ more to the right/)
  await expect(more).toBeVisible()
  await grid.getByRole('gridcell').first().click()
  await page.keyboard.press('End')
  const columns = await grid.getAttribute('aria-colcount')
  const last = grid.locator(`[role=gridcell][aria-colindex="${columns}"]`).first()
  await expect(last).toBeFocused()
  await expect(more).toHaveCount(0)
  await page.keyboard.press('Home')
  await expect(more).toBeVisible()
  // it may go in the moment before it is pressed: then the last column is in sight
  await expect(async () => {
    if (await more.isVisible()) await more.click({ timeout: 2_000 * pace() })
    expect(await more.count()).toBe(0)
  }).toPass()
  await expect(last).toBeVisible()
  // wider: each of them, drawn where it now belongs
  const widthOf = () => heads.last().evaluate(e => (e as HTMLElement).offsetWidth)
  expect(await widthOf()).toBe(84)
  await page.getByLabel('Columns').selectOption('wide')
  await expect.poll(widthOf).toBe(132)
  // the panel folds, and is there again as soon as one types
  await page.getByRole('button', { name: 'Fold', exact: true }).click()
  await expect(page.getByText('What is missing at its close')).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Unfold' })).toBeVisible()
})
