import { and, eq } from 'drizzle-orm'
import * as t from '#server/database/schema'
import { cutOff, expect, open, sentence, signIn, test } from './fixtures'

const talk = (world: { seminar: { id: string }; dredge: { id: string } }) =>
  `/seminars/${world.seminar.id}/activities/${world.dredge.id}`

test('a draft survives a closed tab, and is there in another browser', async ({ as, world }) => {
  const page = await as('paz')
  await open(page, talk(world))
  await page.getByRole('textbox', { name: 'Your opening post' }).click()
  await page.keyboard.insertText('I began this and closed the tab')
  await expect(page.locator('.box .state')).toHaveText('saved as draft')
  await page.close()
  const elsewhere = await as('paz')
  await open(elsewhere, talk(world))
  await expect(elsewhere.getByRole('textbox', { name: 'Your opening post' })).toContainText(
    'I began this and closed the tab',
  )
})

test('words typed in the last instant are kept in the browser', async ({ as, world }) => {
  const page = await as('paz')
  await page.route('**/draft', route => route.abort())
  await open(page, talk(world))
  await page.getByRole('textbox', { name: 'Your opening post' }).click()
  await page.keyboard.insertText('the last instant')
  const context = page.context()
  await page.close()
  const reopened = await context.newPage()
  await open(reopened, talk(world))
  await expect(reopened.getByRole('textbox', { name: 'Your opening post' })).toContainText('the last instant')
  await expect(reopened.locator('.box .state')).toHaveText('saved as draft')
})

test('a post whose answer is lost appears once when it is sent again', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/ERR_FAILED|Failed to load/)
  const page = await as('paz')
  await page.route('**/live', route => route.abort()) // with the connection its ear is gone, too
  await open(page, talk(world))
  let lost = false
  await page.route('**/contributions', async route => {
    if (route.request().method() !== 'POST' || lost) return route.fallback()
    lost = true
    await route.fetch() // it reaches the server, and the answer is lost
    await route.abort()
  })
  await page.getByRole('textbox', { name: 'Your opening post' }).click()
  await page.keyboard.insertText('Sent, and sent again.')
  await page.getByRole('button', { name: /^Post/ }).click()
  await expect(
    page.getByRole('alert').filter({ hasText: 'Jovrel could not be reached. What you typed is kept here' }),
  ).toBeVisible()
  await page.getByRole('button', { name: /^Post/ }).click()
  await expect(page.getByText('I speak for the grain shippers')).toBeVisible()
  const paz = await world.enrolment('paz')
  const rows = await world.db
    .select()
    .from(t.contributions)
    .where(and(eq(t.contributions.authorId, paz.id), eq(t.contributions.activityId, world.dredge.id)))
  expect(rows.map(r => [r.state, r.text])).toEqual([['shown', 'Sent, and sent again.']])
})

test('what is refused gets a sentence at the field and stays typed', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/422|413/)
  const page = await as('liv')
  await open(page, talk(world))
  await expect(page.getByRole('textbox', { name: 'Your reply to Saoirse' })).toContainText(
    'Four ells is the herring busses',
  )
  const ines = await world.as('ines')
  const [answered] = await world.db
    .select()
    .from(t.contributions)
    .where(
      and(
        eq(t.contributions.authorId, (await world.enrolment('saoirse')).id),
        eq(t.contributions.type, 'reply'),
        eq(t.contributions.activityId, world.dredge.id),
      ),
    )
    .orderBy(t.contributions.shownAt)
  await ines.send('PUT', `/api/contributions/${answered!.id}/withdrawn`, { withdrawn: true })
  await page.getByRole('textbox', { name: 'Your reply to Saoirse' }).click()
  await page.keyboard.press('Control+End')
  await page.keyboard.insertText(' whether the board has asked them.')
  await page.getByRole('button', { name: /^Post/ }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'Saoirse has withdrawn this post' })).toBeVisible()
  await expect(page.getByRole('textbox', { name: 'Your reply to Saoirse' })).toContainText(
    'whether the board has asked them',
  )

  const paz = await as('paz')
  await open(paz, talk(world))
  await paz.getByRole('button', { name: /^Post/ }).click()
  await expect(paz.getByRole('alert').filter({ hasText: 'no words of your own here yet' })).toBeVisible()
  await paz.getByRole('textbox', { name: 'Your opening post' }).click()
  await paz.keyboard.insertText(sentence(14_000))
  await paz.getByRole('button', { name: /^Post/ }).click()
  await expect(paz.getByRole('alert').filter({ hasText: 'up to 60,000 fit' })).toBeVisible()
  await expect(paz.getByText('14000 of 200 words')).toBeVisible()
})

test('a draft changed in another window is offered beside mine', async ({ as, world, expectedErrors }) => {
  expectedErrors.push(/409/)
  const first = await as('paz')
  const second = await as('paz')
  await open(first, talk(world))
  await open(second, talk(world))
  await first.getByRole('textbox', { name: 'Your opening post' }).click()
  await first.keyboard.insertText('from the first window')
  await expect(first.locator('.box .state')).toHaveText('saved as draft')
  await second.getByRole('textbox', { name: 'Your opening post' }).click()
  await second.keyboard.insertText('from the second window')
  const both = second.getByRole('alertdialog', { name: 'Two texts' })
  await expect(both).toContainText('from the first window')
  await expect(both).toContainText('from the second window')
  await both.getByRole('button', { name: 'Keep that one' }).click()
  await expect(second.getByRole('textbox', { name: 'Your opening post' })).toContainText(
    'from the first window',
  )
})

test('signing out asks about words that were not sent; nobody else who signs in here is shown them', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/Failed to load|ERR_FAILED/)
  const page = await as('paz')
  const context = page.context()
  await cutOff(page, '/draft')
  await open(page, talk(world))
  const field = page.getByRole('textbox', { name: 'Your opening post' })
  await field.click()
  await page.keyboard.insertText('a line for the shared computer')
  const leave = async () => {
    await page.getByRole('button', { name: /appearance and signing out/ }).click()
    await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  }
  await leave()
  const asked = page.getByRole('dialog', { name: 'Words that were not sent' })
  await expect(asked).toContainText('One text is in this browser only')
  await asked.getByRole('button', { name: 'Stay signed in' }).click()
  await expect(asked).toBeHidden()
  await expect(field).toContainText('a line for the shared computer')
  await page.keyboard.press('Escape')
  await open(page, talk(world))
  await leave()
  await asked.getByRole('button', { name: 'Sign out and keep it here' }).click()
  await page.waitForURL('**/sign-in')

  // the next who sits down here
  await signIn(context, world.address, 'anselm')
  await open(page, talk(world))
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect(page.getByText('a line for the shared computer')).toHaveCount(0)

  await signIn(context, world.address, 'paz')
  await open(page, talk(world))
  await expect(field).toContainText('a line for the shared computer')
  await leave()
  await asked.getByRole('button', { name: 'Sign out and delete it' }).click()
  await page.waitForURL('**/sign-in')
  expect(await page.evaluate(() => JSON.stringify({ ...localStorage }))).not.toContain('shared computer')
  await signIn(context, world.address, 'paz')
  await open(page, talk(world))
  await expect(page.getByText('a line for the shared computer')).toHaveCount(0)
})
