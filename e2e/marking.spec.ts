import { chooseWords, expect, open, test } from './fixtures'

test('an instructor marks by key, cites, writes, holds and returns; the student reads it', async ({
  as,
  world,
}) => {
  const page = await as('ines')
  await open(page, '/')
  await page.getByRole('link', { name: `Open the marking desk of ${world.breakwater.title}` }).click()
  const strip = page.getByRole('navigation', { name: 'Students' })
  await expect(strip.getByRole('button', { name: /Mireille Estrada-Holm, ready/ })).toHaveAttribute(
    'aria-current',
    'true',
  )
  await expect(page.getByText('replies to 3 different classmates 2 of 3')).toBeVisible()

  // steps by key: evidence 8, builds 6, clarity 6; timeliness as suggested
  await page.locator('body').press('4')
  await page.locator('body').press('3')
  await chooseWords(page, '[data-line]', 'Rasmus is right that the exemption bought consent')
  await page.locator('body').press('ArrowUp')
  await page.locator('body').press('e')
  await expect(page.locator('mark.cited').filter({ hasText: 'Rasmus is right' })).toBeVisible()
  await page.locator('body').press('ArrowDown')
  await page.locator('body').press('4')
  await page.locator('body').press('a')
  await expect(page.locator('.total')).toContainText('23of 25')
  await expect(page.locator('.total')).toContainText('complete')

  // the letter, begun under the criterion's name
  await page.getByRole('group', { name: 'Builds on others' }).getByRole('heading').click()
  await page.locator('body').press('w')
  await page.keyboard.type('You let Rasmus change your mind in public.')
  const letter = page.getByRole('textbox', { name: 'Letter to Mireille' })
  await expect(letter.getByRole('heading', { name: 'Builds on others' })).toBeVisible()
  await expect(letter).toContainText('You let Rasmus change your mind in public.')
  await expect(page.locator('.state')).toHaveText('saved')

  // hold and go on: the next student who is ready is there
  await page.keyboard.press('Control+Enter')
  await expect(strip.getByRole('button', { name: /Idris Farouk/ })).toHaveAttribute('aria-current', 'true')
  await expect(strip.getByRole('button', { name: 'Mireille Estrada-Holm, held' })).toBeVisible()
  await expect(page.getByRole('status').filter({ hasText: 'Held: 23 of 25 for Mireille.' })).toBeVisible()
  const student = await as('mireille')
  await open(student, `/seminars/${world.seminar.id}/week`)
  await expect(student.getByText('You let Rasmus change your mind')).toHaveCount(0)

  await strip.getByRole('button', { name: 'Mireille Estrada-Holm, held' }).click()
  await page.getByRole('button', { name: 'Return now' }).click()
  await expect(strip.getByRole('button', { name: 'Mireille Estrada-Holm, returned' })).toBeVisible()

  await open(student, `/seminars/${world.seminar.id}/week`)
  await student.getByRole('link', { name: 'Read the whole letter' }).click()
  await expect(student.getByText('You let Rasmus change your mind in public.')).toBeVisible()
  const judged = student.getByRole('complementary', { name: 'Steps and points' })
  await expect(judged).toContainText('23 of 25')
  await expect(judged).toContainText('tests, 8 of 8')
  await expect(judged).toContainText('engages, 6 of 8')
  await expect(judged.getByRole('link', { name: /Rasmus is right/ })).toBeVisible()
  await expect(student.getByText('ask whether the Sunday deadline')).toHaveCount(0)
})

test('a mark saved meanwhile by someone else is shown beside mine; nothing is overwritten', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/409/)
  const solongo = await world.enrolment('solongo')
  const path = `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk?student=${solongo.id}`
  const ines = await as('ines')
  const henrik = await as('henrik')
  await open(ines, path)
  await open(henrik, path)
  await ines.locator('body').press('3')
  await expect(ines.locator('.state')).toHaveText('saved')
  await henrik.locator('body').press('1')
  const both = henrik.getByRole('alertdialog', { name: 'Two texts' })
  await expect(both).toContainText('Ines Okafor-Lind saved this mark meanwhile')
  await expect(both).toContainText('Use of evidence: 2')
  await expect(both).toContainText('Use of evidence: 6')
  await both.getByRole('button', { name: 'Keep that one' }).click()
  await expect(both).toHaveCount(0)
  await expect(henrik.locator('.rungs .at')).toHaveText('6')
})

test('held marks are returned together, some left out; holding can be taken back', async ({ as, world }) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk`)
  const strip = page.getByRole('navigation', { name: 'Students' })
  await page.getByRole('button', { name: 'Return 6 held' }).click()
  await page.getByRole('checkbox', { name: 'Emrys Tal' }).uncheck()
  await page.getByRole('button', { name: 'Return to five students' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Returned to five students.' })).toBeVisible()
  await expect(strip.getByRole('button', { name: 'Nico Corvo, returned' })).toBeVisible()
  await strip.getByRole('button', { name: 'Emrys Tal, held' }).click()
  await page.getByRole('button', { name: 'Take back to the desk' }).click()
  await expect(strip.getByRole('button', { name: 'Emrys Tal, ready' })).toBeVisible()
  await expect(page.getByRole('button', { name: /Hold and go on/ })).toBeVisible()
})

test('holding with criteria left is refused in words and keeps everything', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/422/)
  const page = await as('henrik')
  const kadri = await world.enrolment('kadri')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk?student=${kadri.id}`)
  await page.locator('body').press('2')
  await page.getByRole('button', { name: /Hold and go on/ }).click()
  await expect(
    page.getByRole('alert').filter({ hasText: '3 criteria are still without a step' }),
  ).toBeVisible()
  await expect(page.locator('.rungs .at')).toHaveText('4')
})
