import type { Request } from '@playwright/test'
import { pace } from '#server/testing/pace'
import type { World } from '#server/testing/world'
import { barriersOf } from './barriers'
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

test('a key is given another sign, another is switched off, and the browser remembers both', async ({
  as,
  world,
}) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/voices`)
  const list = page.getByRole('dialog', { name: 'Keys on this page' })
  const person = page.locator('tr.on, tr[aria-selected="true"]').first()
  await page.getByRole('button', { name: 'Keys', exact: true }).click()
  await list.getByRole('button', { name: 'j: change the key for “the next student”' }).press('Enter')
  await expect(list.getByRole('button', { name: /^Press the new key/ })).toBeFocused()
  await page.keyboard.press('k') // which is for the student before
  await expect(list).toContainText(
    '“k” is for “the next student” now. Its old key is for “the student before”.',
  )
  await list.getByRole('button', { name: 'j: change the key for “the student before”' }).press('Enter')
  await page.keyboard.press('Delete')
  await expect(list).toContainText('The key for “the student before” is off.')
  await list.getByRole('button', { name: /^k: change/ }).press('Enter')
  await page.keyboard.press('Escape') // changes nothing, and closes nothing
  await expect(list.getByRole('button', { name: 'k: change the key for “the next student”' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(list).toBeHidden()

  await open(page, page.url())
  await page.locator('body').press('j')
  await expect(person).toHaveCount(0)
  await page.locator('body').press('k')
  await expect(person).toHaveCount(1)
  await page.getByRole('button', { name: 'Keys', exact: true }).click()
  await list.getByRole('button', { name: 'Reset all keys' }).click()
  await expect(list.getByRole('button', { name: 'j: change the key for “the next student”' })).toBeVisible()
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

const SINGLE_KEYS = [...'abcdefghijklmnopqrstuvwxyz0123456789.,<>[]/+-', 'ArrowUp', 'ArrowDown']
const activity = (w: World, of: { id: string }, rest = '') =>
  `/seminars/${w.seminar.id}/activities/${of.id}${rest}`

test('no key of any page acts behind a dialog', async ({ as, world }) => {
  const page = await as('ines')
  const all = await world.db.query.activities.findMany()
  const kind = (k: string) => all.find(a => a.kind === k && a.state === 'published')!
  const liv = await world.enrolment('liv')
  for (const path of [
    ...['desk', 'criteria'].map(rest => activity(world, world.breakwater, `/${rest}`)),
    ...['discussion', 'journal', 'blog', 'wiki', 'reading', 'review', 'lexicon', 'exitNote'].map(k =>
      activity(world, kind(k)),
    ),
    activity(world, world.reports, '/peers'),
    `/seminars/${world.seminar.id}/voices`,
    `/seminars/${world.seminar.id}/voices/${liv.id}`,
    `/seminars/${world.seminar.id}/gradebook`,
    `/seminars/${world.seminar.id}/plan`,
  ]) {
    await open(page, path)
    await page.getByRole('button', { name: 'Keys', exact: true }).click()
    const list = page.getByRole('dialog', { name: 'Keys on this page' })
    await list.getByRole('button', { name: 'Close' }).focus()
    const writes: string[] = []
    const heard = (request: Request) => {
      const isByItself = request.method() === 'GET' || request.url().endsWith('/visit')
      if (!isByItself) writes.push(request.url())
    }
    page.on('request', heard)
    for (const key of SINGLE_KEYS) await page.keyboard.press(key)
    await expect(list).toBeVisible()
    expect(new URL(page.url()).pathname).toBe(path)
    // nothing was sent, nothing chosen, nothing said, and the keyboard is where it was
    expect(writes).toEqual([])
    expect(await page.evaluate(() => getSelection()!.isCollapsed)).toBe(true)
    await expect(page.locator('.v-snackbar')).toHaveCount(0)
    await expect(list.getByRole('button', { name: 'Close' })).toBeFocused()
    page.off('request', heard)
  }
})

test('no dialog and no menu has a barrier, and each gives the keyboard back', async ({ as, world }) => {
  const page = await as('ines')
  await page.emulateMedia({ reducedMotion: 'reduce' })
  const seminar = `/seminars/${world.seminar.id}`
  const wrong: string[] = []
  for (const [path, opener, name] of [
    [`${seminar}/plan`, 'Plan an activity', 'Plan an activity'],
    [`${seminar}/plan`, 'Notices', 'Notices'],
    [`${seminar}/plan`, /appearance and signing out$/, 'Appearance and signing out'],
    [`${seminar}/plan`, 'Keys', 'Keys on this page'],
    [`${seminar}/plan`, /^Find anything/, /Find/],
    [`${seminar}/gradebook`, 'Export results', 'Export results'],
    [`${seminar}/gradebook`, 'Import marks', 'Import marks'],
    [`${seminar}/people`, 'Import a roster', /roster/i],
    [activity(world, world.breakwater, '/desk'), 'Return 6 held', 'Return held marks'],
    [activity(world, world.breakwater, '/desk'), 'a phrase', /phrase/i],
    [activity(world, world.breakwater, '/desk'), 'as Mireille sees it', /sees it|Mireille/],
    [activity(world, world.essays, '/plan'), /^How it is marked/, 'How it is marked'],
    [activity(world, world.essays, '/plan'), /^Returned by/, 'Returned by'],
  ] as const) {
    if (new URL(page.url(), 'http://x').pathname !== path) await open(page, path)
    const button = page.getByRole('button', { name: opener }).first()
    await button.focus()
    await page.keyboard.press('Enter')
    const dialog = page.getByRole('dialog', { name }).first()
    await expect(dialog).toBeVisible()
    // what has just come in is looked at once it stands
    let found: readonly string[] = []
    await expect(async () => {
      found = await barriersOf(page)
      expect(found).toEqual([])
    })
      .toPass({ timeout: 15_000 * pace() })
      .catch(() => wrong.push(...found.map(barrier => `${String(name)}: ${barrier}`)))
    // a dialog takes Esc once it is on top, a moment after it is seen
    await expect(async () => {
      await page.keyboard.press('Escape')
      await expect(dialog).toBeHidden({ timeout: 1000 })
    }).toPass()
    await expect(button).toBeFocused()
  }
  expect(wrong).toEqual([])
})
