import { eq } from 'drizzle-orm'
import * as t from '#server/database/schema'
import { chooseWords, cutOff, expect, open, test } from './fixtures'

test('an instructor marks by key, cites, writes, holds and returns; the student reads it', async ({
  as,
  world,
}) => {
  const page = await as('ines')
  await open(page, '/')
  await page.getByRole('link', { name: `11 ready to mark in ${world.breakwater.title}` }).click()
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

test('a remark is about the criterion just judged, though keys have gone on to the next; every part has its key', async ({
  as,
  world,
}) => {
  const page = await as('ines')
  const { id } = await world.enrolment('mireille')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk?student=${id}`)
  const letter = page.getByRole('textbox', { name: 'Letter to Mireille' })
  await page.getByRole('group', { name: 'Use of evidence' }).getByRole('heading').click()
  await page.locator('body').press('4')
  await page.locator('body').press('w')
  await page.keyboard.type('One register more would settle it.')
  const remark = letter.locator('p', { hasText: 'One register more would settle it.' })
  await expect(remark.locator('xpath=preceding-sibling::h3[1]')).toHaveText('Use of evidence')
  await page.keyboard.press('Escape')
  await page.locator('body').press('m')
  await page.keyboard.type('Ask about the register.')
  await expect(page.getByLabel(/^Marker’s note/)).toHaveValue(/Ask about the register\.$/)
  await page.keyboard.press('Escape')
  await page.locator('body').press('o')
  await expect(page.getByRole('textbox', { name: 'Points' })).toBeFocused()
  await page.getByRole('button', { name: 'cancel' }).click()
  await page.locator('body').press('l')
  await expect(letter).toBeFocused()
  await expect(page.locator('.state')).toHaveText('saved')
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
  await expect(ines.getByText('Henrik Sorrel-Mensah has Solongo’s record open, too.')).toBeVisible()
  await henrik.locator('body').press('1')
  await henrik.getByRole('textbox', { name: 'Marker’s note' }).fill('Read twice.')
  const both = henrik.getByRole('alertdialog', { name: 'Two versions of this mark' })
  await expect(both).toContainText('Ines Okafor-Lind saved this mark while you were changing it')
  await expect(both.getByRole('rowheader')).toHaveText(['Use of evidence', 'Marker’s note'])
  await both.getByRole('radio', { name: 'Use of evidence: as Ines Okafor-Lind has it' }).check()
  await both.getByRole('button', { name: 'Save what is chosen' }).click()
  await expect(both).toHaveCount(0)
  await expect(henrik.locator('.rungs .at')).toHaveText('6')
  await expect(henrik.locator('.state')).toHaveText('saved')
  await open(ines, path)
  await expect(ines.locator('.rungs .at')).toHaveText('6')
  await expect(ines.getByRole('textbox', { name: 'Marker’s note' })).toHaveValue('Read twice.')
})

test('held marks are returned together after one has seen what goes out; all of it can be taken back', async ({
  as,
  world,
}) => {
  const emrys = await world.enrolment('emrys')
  await world.db.update(t.marks).set({ letterText: '' }).where(eq(t.marks.enrolmentId, emrys.id))
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk`)
  const strip = page.getByRole('navigation', { name: 'Students' })
  await page.getByRole('button', { name: 'Return 6 held' }).click()
  const dialog = page.getByRole('dialog', { name: 'Return held marks' })
  await expect(dialog.getByRole('row', { name: /Nico Corvo/ })).toContainText(/\d+(\.5)? of 25.*a letter/)
  await expect(dialog.getByRole('row', { name: /Emrys Tal/ })).toContainText('no letter')
  await expect(dialog.getByText('Emrys Tal would get steps and points without a letter.')).toBeVisible()
  await expect(dialog.getByText('Each student can open letter, steps and points at once')).toBeVisible()
  await page.getByRole('checkbox', { name: 'Emrys Tal' }).uncheck()
  await page.getByRole('button', { name: 'Return to five students' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Returned to five students.' })).toBeVisible()
  await expect(strip.getByRole('button', { name: 'Nico Corvo, returned' })).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'five marks are held again' })).toBeVisible()
  await expect(strip.getByRole('button', { name: 'Nico Corvo, held' })).toBeVisible()
  await strip.getByRole('button', { name: 'Emrys Tal, held' }).click()
  await page.getByRole('button', { name: 'Reopen' }).click()
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

test('Escape leaves the letter, so that keys are keys; undo takes back what one did last, and redo does it again', async ({
  as,
  world,
}) => {
  const malin = await world.enrolment('malin')
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk?student=${malin.id}`)
  const letter = page.getByRole('textbox', { name: 'Letter to Malin' })
  await letter.click()
  await page.keyboard.type('Dear Malin, 4 sources')
  await page.keyboard.press('Escape')
  for (const key of ['4', '3', '3', '2']) await page.keyboard.press(key)
  await expect(page.locator('.total')).toContainText('complete')
  await expect(letter).toHaveText('Dear Malin, 4 sources')
  await expect(page.locator('.state')).toHaveText('saved')

  const strip = page.getByRole('navigation', { name: 'Students' })
  await page.keyboard.press('Control+Enter')
  await expect(strip.getByRole('button', { name: 'Malin Urbanek, held' })).toBeVisible()
  // the hold goes first, not the steps under it
  await page.keyboard.press('z')
  await expect(page.getByRole('status').filter({ hasText: 'Malin’s mark is open again.' })).toBeVisible()
  await expect(page.locator('.total')).toContainText('complete')
  await page.keyboard.press('z')
  await expect(page.locator('.total')).toContainText('One criterion left')
  await page.keyboard.press('Shift+Z')
  await page.keyboard.press('Shift+Z')
  await expect(page.getByRole('status').filter({ hasText: 'Malin’s mark is held.' })).toBeVisible()
  await expect(strip.getByRole('button', { name: 'Malin Urbanek, held' })).toBeVisible()
})

test('a returned mark that is changed says so, and shows both figures in the gradebook', async ({
  as,
  world,
}) => {
  const liv = await world.enrolment('liv')
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/criteria`)
  await page.getByRole('button', { name: 'everyone', exact: true }).click() // it opens on who is ready
  const row = page.locator('.row').filter({ hasText: 'Brandt' })
  await row.getByRole('radio').first().focus()
  await page.keyboard.press('1')
  const said = page.getByRole('status').filter({ hasText: 'Liv has this mark already.' })
  await expect(said).toBeVisible()
  await expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible()
  await open(page, `/seminars/${world.seminar.id}/gradebook`)
  const cell = page.getByRole('gridcell', { name: /breakwater\?, Liv Brandt/ })
  await expect(cell).toHaveAccessibleName(/being changed to/)
  await expect(cell).toHaveText(/^\d+(\.5)? → \d+(\.5)?$/)
  await cell.click()
  await expect(
    page.getByText('until that is returned, Liv sees what was returned, and that counts'),
  ).toBeVisible()
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk?student=${liv.id}`)
  await expect(page.getByText(/Liv has \d+(\.5)? of 25 and the letter that was returned/)).toBeVisible()
})

test('a mark that cannot be saved says so on its record alone, survives a reload, and is saved then', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/ERR_FAILED|Failed to load/)
  const [malin, solongo] = await Promise.all([world.enrolment('malin'), world.enrolment('solongo')])
  const desk = `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk`
  const page = await as('ines')
  const restore = await cutOff(page, '/mark')
  await open(page, `${desk}?student=${malin.id}`)
  await page.locator('body').press('4')
  await expect(page.locator('.state')).toHaveText('not saved')
  const strip = page.getByRole('navigation', { name: 'Students' })
  await strip.getByRole('button', { name: /Solongo/ }).click()
  await expect(page.getByRole('textbox', { name: 'Letter to Solongo' })).toBeVisible()
  await expect(page.locator('.state')).not.toHaveText('not saved')
  page.on('dialog', dialog => void dialog.accept()) // the browser asks whether to leave
  await open(page, `${desk}?student=${solongo.id}`)
  await expect(strip.getByRole('button', { name: /Malin .*not saved/ })).toBeVisible()
  await restore()
  await open(page, `${desk}?student=${malin.id}`)
  await expect(page.locator('.rungs .at')).toHaveText('8')
  await expect(page.locator('.state')).toHaveText('saved')
  const rows = await world.db.select().from(t.marks).where(eq(t.marks.enrolmentId, malin.id))
  expect(rows.filter(r => r.activityId === world.breakwater.id)).toHaveLength(1)
})
