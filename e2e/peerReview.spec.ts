import { eq } from 'drizzle-orm'
import type { OwnReviews } from '#shared/kinds/review/review'
import * as t from '#server/database/schema'
import type { World } from '#server/testing/world'
import { FIVE, peerReviewIn } from '#server/testing/peerReview'
import { chooseWords, expect, open, sentence, test } from './fixtures'

const at = (hours: number) => new Date(Date.parse('2026-10-14T08:20:00Z') + hours * 3_600_000)
const page_ = (world: World, activity: { id: string }, rest = '') =>
  `/seminars/${world.seminar.id}/activities/${activity.id}${rest}`

/** Draft essays, open: hand-in ends and reading begins and ends so many hours from now. */
async function openEssays(world: World, handInEnds: number, readingEnds: number) {
  const [version] = await world.db
    .select()
    .from(t.rubricVersions)
    .where(eq(t.rubricVersions.rubricId, (await world.rubric('Source report')).id))
  await world.db
    .update(t.activities)
    .set({
      state: 'published',
      opensAt: at(-100),
      points: 2000,
      scale: 'points',
      rubricVersionId: version!.id,
    })
    .where(eq(t.activities.id, world.essays.id))
  await world.db.delete(t.phases).where(eq(t.phases.activityId, world.essays.id))
  const ids = { seminarId: world.seminar.id, activityId: world.essays.id }
  await world.db.insert(t.phases).values([
    { ...ids, name: 'write', startsAt: at(-100), endsAt: at(handInEnds), position: 0 },
    { ...ids, name: 'review', startsAt: at(handInEnds), endsAt: at(readingEnds), position: 1 },
  ])
}

test('a student hands work in, is warned of a name in it, takes it back and hands it in again', async ({
  as,
  world,
  expectedErrors,
}) => {
  await openEssays(world, 30, 100)
  expectedErrors.push(/422/)
  const page = await as('liv')
  await open(page, page_(world, world.essays))
  const own = page.getByRole('region', { name: 'Your own work' })
  await own.getByRole('textbox', { name: 'Title' }).fill('Marks on a page')
  const text = own.getByRole('textbox', { name: 'Your work' })
  await text.click()
  await page.keyboard.type(`By Liv Brandt. ${sentence(30)}`)
  await own.getByRole('button', { name: /Hand it in/ }).click()
  const warned = page.getByRole('alertdialog', { name: 'Names in it' })
  await expect(warned).toContainText('“Liv Brandt” your name')
  await warned.getByRole('button', { name: 'Go back and edit' }).click()
  await text.click()
  await page.keyboard.press('Control+a')
  await page.keyboard.type(`By nobody in particular. ${sentence(30)}`)
  await own.getByRole('button', { name: /Hand it in/ }).click()
  await expect(own).toContainText('Marks on a page')
  await expect(own).toContainText(/readers call it \w+/)
  await own.getByRole('button', { name: 'withdraw' }).click()
  await own.getByRole('button', { name: 'Hand it in again' }).click()
  await expect(own).toContainText('Marks on a page')
  await page.reload()
  await expect(own.getByText('handed in')).toBeVisible()
  await expect(page.getByRole('region', { name: 'What you review' })).toContainText(
    'three pieces of work are assigned to you',
  )
})

test('a reader scores with pointer and keys, remarks on a passage, is told what is missing, and hands in without a name', async ({
  as,
  world,
}) => {
  const page = await as('petra')
  await open(page, page_(world, world.reports))
  const list = page.getByRole('region', { name: 'What you review' })
  await expect(list.getByRole('link')).toHaveCount(3)
  await expect(list).not.toContainText('Corvo')
  await page.locator('body').press('r')
  await page.waitForURL('**/reviews/**')
  await expect(page.getByRole('region', { name: 'The work' })).toBeVisible()
  const first = page.getByRole('radiogroup', { name: 'Score for Question' })
  await first.getByRole('radio', { name: '3.5 of 5' }).click()
  await first.press('ArrowRight')
  await expect(first.getByRole('radio', { name: '4 of 5' })).toHaveAttribute('aria-checked', 'true')
  for (const title of ['Use of sources', 'Structure'])
    await page
      .getByRole('radiogroup', { name: `Score for ${title}` })
      .getByRole('radio', { name: '3 of 5' })
      .click()
  for (const title of ['Question', 'Use of sources', 'Structure', 'Expression'])
    await page.getByLabel(`Remark on ${title}`).fill(`I see ${sentence(12)} in it.`)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('Still asked for: points for “Expression”.')).toBeVisible()
  const missing = page.getByRole('radiogroup', { name: 'Score for Expression' })
  await expect(missing).toBeInViewport()
  await expect(missing.locator(':focus')).toHaveCount(1)
  await page
    .getByRole('radiogroup', { name: 'Score for Expression' })
    .getByRole('radio', { name: '4.5 of 5' })
    .click()
  const words = (await page.locator('.work .prose p').first().innerText()).slice(0, 24)
  await chooseWords(page, '.work .prose', words)
  await page.getByRole('button', { name: /Remark on this/ }).click()
  await page
    .getByRole('textbox', { name: 'Remark on this passage' })
    .fill('This is where I began to believe you.')
  await page.getByLabel(/To your instructor alone/).fill('I think I know who wrote this.')
  await expect(page.locator('.state')).toHaveText('saved')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('In.', { exact: true })).toBeVisible()
  const client = await world.as('petra')
  const own = (await client.json<OwnReviews>('GET', `/api/activities/${world.reports.id}/reviews`)).body
  expect(own.given.filter(g => g.state === 'in')).toHaveLength(2)
})

test('the instructor looks at what is flagged, sets a review aside, takes a consensus, moves a reader, and lets the reviews out to their authors', async ({
  as,
  world,
}) => {
  const page = await as('ines')
  await open(page, page_(world, world.reports, '/peers'))
  await expect(page.locator('.peers > header')).toContainText('58 of 63 reviews in')
  const solongo = (await world.enrolment('solongo')).id
  await open(page, page_(world, world.reports, `/peers?student=${solongo}`))
  const main = page.locator(`section[data-author="${solongo}"]`)
  await expect(main).toContainText('Emrys Tal’s review: 2.9 points below the others')
  await expect(main).toContainText('hidden from Solongo')
  const corrected = page.locator('tfoot .corr')
  const before = await corrected.innerText()
  await main.getByRole('button', { name: 'Set aside …', exact: true }).click()
  await main
    .getByRole('textbox', { name: 'Why it does not count' })
    .fill('It counts sources instead of reading them.')
  // Enter on a choice of the form is for the form: it does not use the consensus
  await main.getByRole('checkbox', { name: /^tell Emrys/ }).check()
  await page.keyboard.press('Enter')
  await expect(main).toContainText('is set aside: It counts sources instead of reading them.')
  await expect(page.locator('.pane')).not.toContainText('Held')
  await expect(corrected).not.toHaveText(before)
  await expect(page.locator('.pane')).toContainText('two readers')
  // one in which nothing is flagged is set aside from beside its reader's name, and counts again
  await main.getByRole('button', { name: /^set aside … the review of Saoirse/ }).click()
  await expect(main).toContainText('nothing in it is flagged')
  await main.getByRole('textbox', { name: 'Why it does not count' }).fill('It is of another draft.')
  await page.keyboard.press('Enter')
  await expect(main).toContainText('is set aside: It is of another draft.')
  await expect(main).toContainText('For Saoirse it counts as done; they were not told.')
  await expect(page.locator('.pane')).toContainText('one reader')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.locator('.pane')).toContainText('two readers')
  // own figures go beside the readers', and are saved as one types; what is no figure is said
  await page.getByLabel('Your points for Structure').fill('37')
  await page.keyboard.press('Tab')
  await expect(page.getByText('Structure goes from 0 to 5. What you wrote there is not saved.')).toBeVisible()
  await page.getByLabel('Your points for Structure').fill('3.7')
  await page.keyboard.press('Tab')
  await expect(page.locator('.pane .state')).toHaveText('')
  // what is taken is said on the button; own points are taken by a button of their own, stay beside a
  // consensus, and all is undone to the last detail
  const pane = page.locator('.pane')
  await expect(pane).toContainText('On the one work you gave points')
  await expect(pane.getByRole('button', { name: /^Use your points/ })).toHaveCount(0)
  for (const field of await pane.locator('input.own').all())
    if ((await field.inputValue()) === '') {
      await field.fill('3.5')
      await page.keyboard.press('Tab')
    }
  const inputs = await pane
    .locator('input.own')
    .evaluateAll(list => list.map(f => (f as HTMLInputElement).value))
  const takesConsensus = pane.getByRole('button', { name: /^Use the consensus/ })
  const consensus = /: ([\d.]+)/.exec(await takesConsensus.innerText())![1]!
  await takesConsensus.click()
  await expect(page.getByText(`Solongo: ${consensus} is held.`)).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Solongo’s mark is as it was before.')).toBeVisible()
  await expect(main).toBeVisible()
  await expect(pane).not.toContainText('Held')
  expect(
    await pane.locator('input.own').evaluateAll(list => list.map(f => (f as HTMLInputElement).value)),
  ).toEqual(inputs)
  const takesOwn = pane.getByRole('button', { name: /^Use your points/ })
  const own = /: ([\d.]+)/.exec(await takesOwn.innerText())![1]!
  await takesOwn.click()
  await expect(page.getByText(`Solongo: ${own}, your own points, is held.`)).toBeVisible()
  await open(page, page_(world, world.reports, `/peers?student=${(await world.enrolment('yusra')).id}`))
  const take = page.getByRole('button', { name: /^Use the consensus: \d/ })
  const points = /: ([\d.]+)/.exec(await take.innerText())![1]!
  await take.click()
  await expect(page.getByText(`Yusra: ${points} is held.`)).toBeVisible()
  await expect(page.locator('section[data-author]')).not.toHaveAttribute(
    'data-author',
    (await world.enrolment('yusra')).id,
  )
  // without names nothing on the desk says whose it is, nor does the order of names
  await page.getByRole('button', { name: 'Hide names' }).click()
  await expect(page.locator('.peers')).toContainText('Student 1')
  await expect(page.locator('.peers')).not.toContainText(/Gantulga|Haverkamp|Urbanek|Malin\b/)
  await page.getByRole('button', { name: 'Show names' }).click()
  await expect(page.locator('.peers')).toContainText('Haverkamp')
  // by keyboard: the table is walked, and a review nobody has opened goes to somebody else
  const table = page.getByRole('application', { name: /Who reviews whom/ })
  await table.focus()
  await page.locator('.flags button').first().focus()
  await page.getByRole('button', { name: 'Reassign' }).click()
  const dialog = page.getByRole('dialog', { name: 'Reassign reviewers' })
  await dialog.getByRole('checkbox', { name: 'Jonas Haverkamp' }).check()
  await expect(dialog).toContainText('Jonas Haverkamp no longer reads Femke Duyvis')
  await dialog.getByRole('radio', { name: 'anybody' }).check()
  await expect(dialog).toContainText('Two reviews assigned, two withdrawn; 61 stay')
  await dialog.getByRole('button', { name: 'Reassign' }).click()
  await expect(page.getByText('Reviewers are reassigned.')).toBeVisible()
  await expect(page.locator('.peers > header')).toContainText('of 63 reviews in')
  await page.getByRole('button', { name: 'now', exact: true }).click()
  await expect(page.getByText(/^Released:/)).toBeVisible()

  const author = await as('solongo')
  await open(author, page_(world, world.reports))
  const received = author.getByRole('region', { name: 'What readers said' })
  await expect(received).toContainText('It is the boldest move here')
  await expect(received).not.toContainText('Only four sources')
  await expect(received).not.toContainText(/Ilves|Valdemar|Tal\b/)
  await received.getByRole('radiogroup').first().getByRole('radio', { name: 'very helpful' }).click()
  await expect(received.getByRole('radiogroup').first()).toContainText('very helpful')
  await received.getByRole('button', { name: 'answer, without names' }).first().click()
  await author.keyboard.type('Thank you; I have looked again.')
  await received.getByRole('button', { name: 'Answer', exact: true }).click()
  await expect(received).toContainText('I have looked again.')
})

test('an instructor ends hand-in and begins reviewing before the time; what was assigned is said, and taken back', async ({
  as,
  world,
}) => {
  const { times, handIn } = await peerReviewIn(world)
  for (const who of FIVE) await handIn(who, `By somebody. ${sentence(280)}`)
  await times(-48, -96, -200) // hours ago: in two days hand-in ends, in four reviewing begins
  const page = await as('ines')
  await open(page, page_(world, world.essays, '/peers'))
  await expect(page.getByRole('button', { name: 'Assign reviewers' })).toBeDisabled()
  await page.getByRole('button', { name: 'End hand-in now' }).click()
  const dialog = page.getByRole('dialog', { name: 'End hand-in now' })
  await expect(dialog).toContainText('Hand-in ends now, and not Fri 16 Oct, 10:20.')
  await expect(dialog).toContainText('What they hand in now is late.')
  await expect(dialog).toContainText('Reviewing begins Sun 18 Oct, 10:20, as planned.')
  await expect(dialog.getByRole('status')).not.toContainText('calculating')
  await dialog.getByRole('button', { name: 'End hand-in now' }).click()
  await expect(page.getByText('Hand-in has ended. Everyone who takes part is told.')).toBeVisible()

  const assign = page.getByRole('button', { name: 'Assign reviewers' })
  await assign.click()
  await expect(page.getByText('Reviewers are assigned. Five works have two readers each.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await assign.click()
  await expect(page.locator('.peers > header')).toContainText('0 of 10 reviews in')

  await page.getByRole('button', { name: 'Begin reviewing now' }).click()
  const second = page.getByRole('dialog', { name: 'Begin reviewing now' })
  await expect(second).toContainText('Reviewing begins now, and not Sun 18 Oct, 10:20. It goes on until')
  await second.getByRole('button', { name: 'Begin reviewing now' }).click()
  await expect(page.getByText('Reviewing has begun.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Begin reviewing now' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('The dates are as they were.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Begin reviewing now' })).toBeVisible()
})

test('a reader is moved by dragging on the table, and back by undo', async ({ as, world }) => {
  const page = await as('ines')
  await open(page, page_(world, world.reports, '/peers'))
  // Jonas has not opened Femke's report; it goes to Tomasz, two columns being told by their initials
  const middle = async (of: ReturnType<typeof page.locator>) => {
    const b = (await of.boundingBox())!
    return [b.x + b.width / 2, b.y + b.height / 2] as const
  }
  const [[jonas], [tomasz], [, row]] = await Promise.all([
    middle(page.locator('.initial', { hasText: 'Jonas Haverkamp' })),
    middle(page.locator('.initial', { hasText: 'Tomasz Adeyinka' })),
    middle(page.locator('.name', { hasText: 'Femke Duyvis' })),
  ])
  await page.mouse.move(jonas, row)
  await page.mouse.down()
  await page.mouse.move((jonas + tomasz) / 2, row, { steps: 4 })
  await page.mouse.move(tomasz, row, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByText('Tomasz Adeyinka reads Femke Duyvis now.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Jonas Haverkamp reads Femke Duyvis now.')).toBeVisible()
})

test('teammates’ shares are seen with what was said, changed by hand and given to the group’s mark', async ({
  as,
  world,
}) => {
  const page = await as('ines')
  await open(page, page_(world, world.teammates, '/peers'))
  await page.getByRole('button', { name: 'Paz Jaramillo' }).click()
  await expect(page.locator('.mates')).toContainText('I do not know what happened.')
  const share = page.getByRole('textbox', { name: 'Share of Paz Jaramillo' })
  await expect(share).toHaveValue('0.80')
  // what is set aside leaves every figure, and comes back
  const paz = page.locator('tbody', { has: share })
  const means = () => paz.locator('tr').first().locator('.bar').allInnerTexts()
  const before = await means()
  await paz
    .getByRole('button', { name: /^set aside the review of/ })
    .first()
    .click()
  await paz.getByRole('textbox', { name: 'Why it does not count' }).fill('It settles a quarrel.')
  await paz.getByRole('checkbox', { name: /^it counts as done/ }).uncheck()
  await page.keyboard.press('Enter')
  await expect(page.getByText('does not count as done; everything is calculated again.')).toBeVisible()
  await expect.poll(means).not.toEqual(before)
  await paz.getByRole('button', { name: 'Count it again' }).click()
  await expect.poll(means).toEqual(before)
  // everyone is gone through by key
  await page.locator('h1').focus()
  await page.keyboard.press('j')
  await expect(page.locator('tr.on')).toHaveCount(1)
  await expect(page.locator('tr.on')).not.toContainText('Paz Jaramillo')
  await page.keyboard.press('k')
  await expect(page.locator('tr.on')).toContainText('Paz Jaramillo')
  await share.fill('0.9')
  await share.press('Tab')
  await page
    .locator('section', { hasText: 'Paz Jaramillo' })
    .getByRole('button', { name: 'Share “Walls of Sundvik” in this group' })
    .click()
  await expect(page.getByText('The group’s points are shared by these factors.')).toBeVisible()
  await expect(page.locator('tr', { has: share })).toContainText('× 0.90')
})

test('a peer review is planned in sentences, for work or for teammates', async ({ as, world }) => {
  const page = await as('ines')
  await open(page, page_(world, world.essays, '/plan'))
  const lines = page.locator('.review-lines')
  await lines.getByRole('button', { name: 'on paper' }).click()
  await expect(lines.getByRole('button', { name: 'on paper' })).toHaveAttribute('aria-pressed', 'true')
  await lines.getByRole('button', { name: '+ a question beside the criteria' }).click()
  await lines.getByLabel('Question').fill('Which sentence would you keep?')
  await lines.getByLabel('Question').press('Tab')
  await page.getByRole('button', { name: '3 reviews of others' }).click()
  await expect(page.locator('[data-rule="reviews"]')).toContainText('hands in 3 reviews')
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(lines.getByLabel('Question')).toHaveValue('Which sentence would you keep?')
  await lines.getByRole('button', { name: 'classmates’ work, without names' }).click()
  await page.getByText('everyone in their group').click()
  await expect(lines).toContainText('It shares')
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
})
