import { and, eq } from 'drizzle-orm'
import * as t from '#server/database/schema'
import { expect, open, test } from './fixtures'

test('how many works each reviews is asked and assigned as one number; a weekly entry has its weekday', async ({
  world,
  as,
}) => {
  const page = await as('ines')
  const plan = async (kind: RegExp) => {
    await open(page, `/seminars/${world.seminar.id}/plan`)
    await page.getByRole('button', { name: 'Plan an activity' }).click()
    await page.getByRole('dialog', { name: 'Plan an activity' }).getByRole('button', { name: kind }).click()
    await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible()
  }
  const set = async (label: string, value: number) => {
    await page.getByRole('button', { name: new RegExp(`^${label}: `) }).click()
    await page.getByRole('spinbutton', { name: label }).fill(String(value))
    await page.keyboard.press('Enter')
  }
  await plan(/^Peer review/)
  await set('Reviews each', 4)
  await expect(page.getByRole('button', { name: 'How many reviews: 4' })).toBeVisible()
  await set('How many reviews', 2)
  await expect(page.getByRole('button', { name: 'Reviews each: 2' })).toBeVisible()
  await expect(page.getByText('2 reviews, 60+ words each')).toBeVisible() // as students will see it
  // what is proposed can be used as it is
  await expect(page.getByText(/due time has passed|into a break|after the end of the term/)).toHaveCount(0)

  await plan(/^Journal/)
  await expect(page.getByRole('button', { name: 'Due each week on: Sunday' })).toBeVisible()
  await page.getByRole('button', { name: 'Due each week on: Sunday' }).click()
  await page.getByRole('radio', { name: 'Friday' }).check()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: /^Due: Fri/ })).toBeVisible() // the end of the phase has moved with it
})

test('a rule for late work says what it would take from whom, before it is set', async ({ world, as }) => {
  // Malin wrote thirty hours late
  const [writing] = await world.db
    .select()
    .from(t.phases)
    .where(and(eq(t.phases.activityId, world.breakwater.id), eq(t.phases.name, 'write')))
  const post = await world.contribution('malin', world.breakwater.id)
  await world.db
    .update(t.contributions)
    .set({ shownAt: new Date(writing!.endsAt.getTime() + 30 * 3_600_000) })
    .where(eq(t.contributions.id, post.id))
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/plan`)
  await page.getByRole('button', { name: /^Late work: / }).click()
  await page.getByRole('radio', { name: 'loses for each day begun' }).check()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'Hours of grace: 12' })).toBeVisible()
  await expect(
    page.getByText(/Malin Urbanek, 1 day 6 hours late, would lose up to 10 % of the points/),
  ).toBeVisible()
})
