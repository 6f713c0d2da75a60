import { expect, open, test } from './fixtures'

test("an assistant reads the plan, people and library, marks, and finds no act that is the instructor's", async ({
  world,
  as,
  expectedErrors,
}) => {
  expectedErrors.push(/403/)
  const page = await as('henrik')
  await open(page, `/seminars/${world.seminar.id}/plan`)
  await expect(page.getByRole('heading', { name: 'Term plan' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Plan an activity' })).toHaveCount(0)
  await expect(page.locator('.bar.movable')).toHaveCount(0)
  await expect(page.locator('.checks .say .link')).toHaveCount(0)
  await open(page, `/seminars/${world.seminar.id}/people`)
  await expect(page.getByText('liv@northmere.example')).toBeVisible()
  for (const act of ['Import a roster', 'Add somebody', 'Withdraw', 'Make a code'])
    await expect(page.getByRole('button', { name: act })).toHaveCount(0)
  await open(page, `/seminars/${world.seminar.id}/library`)
  await expect(page.getByRole('button', { name: 'Write a rubric' })).toHaveCount(0)
  await open(page, `/seminars/${world.seminar.id}/activities/${world.dredge.id}/plan`)
  await expect(page.getByRole('heading', { name: 'This page could not be shown' })).toBeVisible()
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk`)
  await expect(page.locator('[data-student]')).toBeVisible()
})

test("what an assistant posts carries their role, not the instructor's", async ({ world, as }) => {
  const henrik = await world.as('henrik')
  await henrik.send('POST', `/api/activities/${world.dredge.id}/contributions`, {
    key: crypto.randomUUID(),
    parentId: null,
    doc: {
      type: 'doc',
      content: [
        {
          type: 'paragraph',
          content: [{ type: 'text', text: 'One figure, if I may: forty tokens were made.' }],
        },
      ],
    },
  })
  const page = await as('liv')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  const post = page.locator('article', { hasText: 'One figure, if I may' }).first()
  await expect(post.locator('.role')).toHaveText('assistant')
})

test('students choose their groups by themselves, and see when one is full', async ({ world, as }) => {
  const ines = await as('ines')
  await open(ines, `/seminars/${world.seminar.id}/groups`)
  await ines.getByRole('button', { name: '+ new plan' }).click()
  await ines.getByLabel('What the plan is for').fill('Quay walks')
  await ines.getByLabel('How groups are made').selectOption('join')
  await ines.getByLabel('How many groups').fill('2')
  await ines.getByLabel('People in a group').fill('1')
  await ines.getByRole('button', { name: 'Make the groups' }).click()
  await expect(ines.getByLabel('Name of Group 1')).toBeVisible()
  const liv = await as('liv')
  await open(liv, `/seminars/${world.seminar.id}/groups`)
  await liv.locator('li', { hasText: 'Group 1' }).getByRole('button', { name: 'Join (1 place left)' }).click()
  await expect(liv.locator('li.mine')).toContainText('Group 1')
  const oona = await as('oona')
  await open(oona, `/seminars/${world.seminar.id}/groups`)
  await expect(
    oona.locator('li', { hasText: 'Group 1' }).getByRole('button', { name: 'full' }),
  ).toBeDisabled()
  await liv.getByRole('button', { name: 'Leave' }).click()
  await expect(liv.locator('li.mine')).toHaveCount(0)
})

test('settings save themselves, add up the weights, and take a row off with an undo', async ({
  world,
  as,
}) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/settings`)
  await expect(page.getByText('Together 100 %.')).toBeVisible()
  await page.getByLabel('Weight in percent').first().fill('25')
  await expect(page.getByText('Together 95 %; 5 % are not given yet.')).toBeVisible()
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Add a unit' }).click()
  await page.getByLabel('Theme').last().fill('Coda')
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
  await page
    .locator('section', { hasText: 'Units' })
    .getByRole('button', { name: /^Remove row 4/ })
    .click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByLabel('Theme').last()).toHaveValue('Coda')
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Theme').last()).toHaveValue('Coda')
  await open(page, `/seminars/${world.seminar.id}/plan`)
  await page.getByRole('button', { name: 'under Plan checks' }).click()
  await expect(page.getByText('The categories make 95 % together.')).toBeVisible()
})

test('one says how often Jovrel writes, and a calendar address can be taken away', async ({ as }) => {
  const page = await as('liv')
  await open(page, '/account')
  await page.getByLabel('once a day').check()
  await expect(page.getByText('Mail once a day from now on.')).toBeVisible()
  await page.getByRole('button', { name: 'Make a calendar address' }).click()
  const address = await page.getByLabel('Calendar address').inputValue()
  expect((await page.request.get(address)).status()).toBe(200)
  await page.getByRole('button', { name: 'Delete it' }).click()
  await expect(page.getByRole('button', { name: 'Make a calendar address' })).toBeVisible()
  expect((await page.request.get(address)).status()).toBe(404)
})

test("more time for one person moves their due time and nobody else's", async ({
  world,
  as,
  expectedErrors,
}) => {
  expectedErrors.push(/422/)
  const ines = await as('ines')
  await open(ines, `/seminars/${world.seminar.id}/activities/${world.dredge.id}/plan`)
  await ines.getByRole('button', { name: 'more time for somebody' }).click()
  await ines.getByLabel('For whom').selectOption({ label: 'Oona Rintala' })
  await ines.getByRole('button', { name: 'Give more time' }).click()
  await expect(ines.getByText('Write why, for those who mark.')).toBeVisible()
  await ines.getByLabel('Reason').fill('travelling')
  await ines.getByRole('button', { name: 'Give more time' }).click()
  await expect(ines.getByText(/Oona Rintala has until Wed 21 Oct, 23:59/)).toBeVisible()
  const due = async (who: string) =>
    (await (await world.as(who)).json<{ closesAt: string }>('GET', `/api/activities/${world.dredge.id}`)).body
      .closesAt
  expect(await due('oona')).toBe('2026-10-21T21:59:00.000Z')
  expect(await due('liv')).toBe('2026-10-18T21:59:00.000Z')
})

test('a seminar is closed after reading what that means, is read by its people, and reopened', async ({
  as,
  world,
}) => {
  const page = await as('ines')
  const settings = `/seminars/${world.seminar.id}/settings`
  await open(page, settings)
  await page.getByRole('button', { name: 'Close the seminar …' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('Nobody writes or hands in anything any more')
  await dialog.getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByRole('button', { name: 'Close the seminar …' })).toBeVisible()
  await page.getByRole('button', { name: 'Close the seminar …' }).click()
  await dialog.getByRole('button', { name: 'Close the seminar', exact: true }).click()
  await expect(page.getByText('This seminar is closed: it can be read')).toBeVisible()
  const student = await as('liv')
  await open(student, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}`)
  await expect(student.getByRole('heading', { name: /breakwater/i }).first()).toBeVisible()
  await page.getByRole('button', { name: 'Reopen the seminar' }).click()
  await expect(page.getByText('The seminar is open again.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Close the seminar …' })).toBeVisible()
})
