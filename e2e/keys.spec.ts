import { expect, open, test } from './fixtures'

test('keys rest behind a dialog, which gives the keyboard back, and letters can be switched off', async ({
  as,
  world,
}) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk`)
  const current = page.getByRole('navigation', { name: 'Students' }).locator('[aria-current="true"]')
  await expect(current).toHaveCount(1)
  const student = await current.getAttribute('aria-label')
  const steps = page.getByRole('region', { name: 'Rubric' }).getByRole('radio', { checked: true })
  const taken = () => steps.evaluateAll(all => all.map(step => step.getAttribute('aria-label')))
  const before = await taken()

  const control = page.getByRole('button', { name: 'Keys', exact: true })
  await control.click()
  const list = page.getByRole('dialog', { name: 'Keys on this page' })
  await expect(list).toBeVisible()
  for (const key of 'abcdefghijklmnopqrstuvwxyz0123456789') await page.keyboard.press(key)
  await page.keyboard.press('ArrowDown')
  await expect(list).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(list).toBeHidden()
  await expect(control).toBeFocused()
  await expect(current).toHaveAttribute('aria-label', student!)
  expect(await taken()).toEqual(before)

  // by its own key, and back to where one was
  await page.locator('body').press('?')
  await expect(list).toBeVisible()
  await list.getByRole('checkbox', { name: 'Use keys of a single letter or sign' }).uncheck()
  await list.getByRole('button', { name: 'Close' }).click()
  await expect(list).toBeHidden()
  for (const key of ['n', 'j', '1', '4', '?']) await page.locator('body').press(key)
  await expect(list).toBeHidden()
  await expect(current).toHaveAttribute('aria-label', student!)
  expect(await taken()).toEqual(before)

  // the browser remembers it, and it is switched on again at the same place
  await open(page, page.url())
  await control.click()
  await list.getByRole('checkbox', { name: 'Use keys of a single letter or sign' }).check()
  await page.keyboard.press('Escape')
  await expect(list).toBeHidden()
  await page.locator('body').press('1')
  await expect.poll(taken).not.toEqual(before)
})

test('a dialog opened by key or from a menu gives the keyboard back', async ({ as, world }) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/marking`)
  const find = page.getByRole('button', { name: 'Find anything' })
  await find.focus()
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('combobox', { name: 'Find' })).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await expect(find).toBeFocused()

  await open(page, `/seminars/${world.seminar.id}/gradebook`)
  const importing = page.getByRole('button', { name: 'Import marks' })
  await importing.press('Enter')
  const dialog = page.getByRole('dialog', { name: 'Import marks' })
  await expect(dialog).toBeVisible()
  // a dialog takes Esc once it is on top, a moment after it is seen
  await expect(async () => {
    await page.keyboard.press('Escape')
    await expect(dialog).toBeHidden({ timeout: 1000 })
  }).toPass()
  await expect(importing).toBeFocused()
})
