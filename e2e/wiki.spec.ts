import type { Page } from '@playwright/test'
import type { World } from '#server/testing/world'
import { chooseWords, expect, open, test } from './fixtures'

const pathOf = (world: World, activityId: string) => `/seminars/${world.seminar.id}/activities/${activityId}`
const editor = (page: Page) => page.getByRole('textbox', { name: 'The page', exact: true })
async function goTo(page: Page, title: string) {
  await page
    .locator('.tree')
    .getByRole('button', { name: new RegExp(`^${title}`) })
    .click()
  await expect(
    page.getByRole('article', { name: title }).getByRole('heading', { name: title, exact: true }),
  ).toBeVisible()
}

test('a member claims a page, writes it with links and a note, and the group sees it arrive', async ({
  as,
  world,
}) => {
  const path = pathOf(world, world.city.id)
  const [mireille, nico] = [await as('mireille'), await as('nico')]
  await open(nico, path)
  await open(mireille, path)
  // a key word of the brief becomes a page
  await mireille.getByRole('button', { name: 'What not to say', exact: true }).click()
  await expect(editor(mireille)).toBeVisible()
  await expect(nico.locator('.tree').getByText('writing')).toBeVisible() // who is at it now
  await editor(mireille).click()
  await mireille.keyboard.type('Do not say that the box is a gift. See [[what')
  await expect(mireille.getByRole('option', { name: /^What to pay/ })).toBeVisible()
  await mireille.keyboard.press('Enter')
  await mireille.keyboard.type('and [[The third mole]]')
  await expect(editor(mireille).locator('.page-link')).toHaveText(['What to pay', 'The third mole'])
  await mireille.getByRole('button', { name: 'Footnote', exact: true }).click()
  await mireille.getByLabel('Footnote', { exact: true }).fill('Nobody has seen a third.')
  await mireille.getByLabel('Source').fill('Town book, leaf 12')
  await mireille.getByRole('button', { name: 'Insert' }).click()
  await mireille.getByRole('textbox', { name: 'What this version does' }).fill('three words to avoid')
  await mireille.keyboard.press('Control+Enter')
  await expect(mireille.getByText('Saved as version 1.')).toBeVisible()
  await mireille.getByRole('button', { name: 'claim it' }).click()
  await expect(mireille.locator('.page .meta')).toContainText('claimed by you')
  await expect(mireille.locator('.footnotes')).toContainText('Nobody has seen a third. Town book, leaf 12')
  // Nico's open page has it, and what is wanted
  await goTo(nico, 'What not to say')
  await expect(nico.locator('.page .meta')).toContainText('claimed by Mireille')
  await expect(nico.getByText('The third mole').first()).toBeVisible()
  await nico.getByRole('article').getByRole('link', { name: 'What to pay' }).click()
  await expect(nico.getByRole('article', { name: 'What to pay' })).toBeVisible()
  await expect(nico.getByText('What links here')).toBeVisible()
  // a page is moved from the keyboard, and back
  const item = nico.locator('.tree [data-page]').filter({ hasText: 'What not to say' })
  await item.focus()
  await nico.keyboard.press('Shift+ArrowRight')
  await expect(nico.getByText('stands elsewhere now')).toBeVisible()
  await expect(nico.locator('.branch .branch').filter({ hasText: 'What not to say' }).first()).toBeVisible()
  await expect(
    mireille.locator('.branch .branch').filter({ hasText: 'What not to say' }).first(),
  ).toBeVisible()
  // an answer that comes late does not take a reader off the page they have opened since
  let release = () => {}
  const released = new Promise<void>(done => {
    release = done
  })
  await mireille.route(/\/wiki(\?|$)/, async route => {
    await released
    await route.continue()
  })
  const asked = mireille.waitForRequest(/\/wiki(\?|$)/)
  await nico.getByRole('button', { name: 'Undo' }).click()
  await expect(nico.locator('.branch.top > li > button').filter({ hasText: 'What not to say' })).toBeVisible()
  await asked
  await goTo(mireille, 'What to pay')
  release()
  await expect(
    mireille.locator('.branch.top > li > button').filter({ hasText: 'What not to say' }),
  ).toBeVisible()
  await expect(mireille.getByRole('article', { name: 'What to pay' })).toBeVisible()
})

test('what is typed survives a closed tab; two at once lose nothing and choose where they truly differ', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/409/)
  const page = await world.page(world.city.id, 'Port Amara', 'The two moles')
  const path = `${pathOf(world, world.city.id)}?group=${page.groupId}&page=${page.id}`
  const [malin, laleh] = [await as('malin'), await as('laleh')]
  await open(malin, path)
  await malin.keyboard.press('e')
  await editor(malin).click()
  await malin.keyboard.press('Control+Home')
  await malin.keyboard.type('Malin began this line. ')
  await expect(malin.getByText('draft kept, only you see it')).toBeVisible()
  await malin.keyboard.type('And in the last instant')
  await malin.reload()
  await malin
    .getByRole('button', { name: /Go on with your draft|Write on it/ })
    .or(editor(malin))
    .first()
    .waitFor()
  if (!(await editor(malin).isVisible())) await malin.keyboard.press('e')
  await expect(editor(malin)).toContainText('Malin began this line. And in the last instant')
  // meanwhile Laleh changes the same place and another
  await open(laleh, path)
  await laleh.keyboard.press('e')
  await editor(laleh).click()
  await laleh.keyboard.press('Control+Home')
  await laleh.keyboard.type('Laleh says otherwise. ')
  await laleh.keyboard.press('Control+End')
  await laleh.keyboard.type(' So it ends.')
  await laleh.getByRole('button', { name: /^Save version/ }).click()
  await expect(laleh.getByText('Saved as version 11.')).toBeVisible()
  await expect(malin.getByText('A version was saved since you began')).toBeVisible()
  await malin.getByRole('button', { name: /^Save version/ }).click()
  const overlap = malin.getByRole('group', { name: 'Changed by both' })
  await expect(overlap).toContainText('Laleh saved this page while you wrote')
  await expect(malin.getByRole('button', { name: /^Save version/ })).toBeDisabled()
  await overlap.getByRole('button', { name: 'let both stand' }).click()
  await malin.getByRole('button', { name: /^Save version/ }).click()
  await expect(malin.getByText('joined with what others had saved')).toBeVisible()
  for (const words of ['Malin began this line.', 'Laleh says otherwise.', 'So it ends.'])
    await expect(malin.getByRole('article', { name: 'The two moles' })).toContainText(words)
})

test('a passage is commented on, and the version that acted on it is named', async ({ as, world }) => {
  const page = await world.page(world.city.id, 'Port Amara', 'What to pay')
  const path = `${pathOf(world, world.city.id)}?group=${page.groupId}&page=${page.id}`
  const nico = await as('nico')
  await open(nico, path)
  await chooseWords(nico, '.page .prose', 'You pay four times before you have slept')
  await expect(nico.getByText('On “You pay four times before you have slept”')).toBeVisible()
  await nico.getByRole('textbox', { name: 'Your comment' }).click()
  await nico.keyboard.type('Five. I have counted the gull.')
  await nico.keyboard.press('Control+Enter')
  const comment = nico.locator('.comment').filter({ hasText: 'Five. I have counted the gull.' })
  await expect(comment).toContainText('open')
  await expect(nico.locator('mark.talked').filter({ hasText: 'You pay four times' })).toBeVisible()
  const mireille = await as('mireille')
  await open(mireille, path)
  await mireille.keyboard.press('e')
  await mireille.getByRole('checkbox', { name: /Five\. I have counted the gull/ }).check()
  await editor(mireille).click()
  await mireille.keyboard.press('Control+End')
  await mireille.keyboard.type(' And the gull, if you must.')
  await mireille.getByRole('button', { name: /^Save version/ }).click()
  await expect(comment).toContainText('acted on in version 5 by Mireille') // on Nico's open page
  await comment.getByRole('button', { name: 'open it again' }).click()
  await expect(comment).toContainText('open')
})

test('staff compare versions, see who wrote what, play the history, and mark group and member beside it', async ({
  as,
  world,
}) => {
  const page = await world.page(world.city.id, 'Port Amara', 'The two moles')
  const ines = await as('ines')
  await open(ines, `${pathOf(world, world.city.id)}/history?group=${page.groupId}&page=${page.id}&a=5&b=8`)
  await expect(ines.locator('.changed del').filter({ hasText: 'For a very long time' })).toBeVisible()
  await expect(
    ines.locator('.changed ins').filter({ hasText: 'lightermen of the outer strand' }),
  ).toBeVisible()
  await expect(ines.getByText('moved up')).toBeVisible()
  // by keys: the next version alone, then back
  await ines.keyboard.press('j')
  await expect(ines.getByText(/^Version 8 to 9: 5 words added, 0 removed, by Mireille/)).toBeVisible()
  await ines.keyboard.press('w')
  await expect(ines.locator('.run').filter({ hasText: 'two years after the first' })).toHaveAttribute(
    'title',
    'Mireille Estrada-Holm',
  )
  await expect(ines.locator('.run').filter({ hasText: 'The pilots waited on the second' })).toHaveAttribute(
    'title',
    'Malin Urbanek',
  ) // moved since
  const shares = ines.getByRole('region', { name: 'Shares of this wiki' })
  const percents = (await shares.locator('.bars b').allTextContents()).map(t => Number.parseInt(t))
  expect(percents.reduce((a, b) => a + b, 0)).toBeGreaterThan(97)
  expect(percents.reduce((a, b) => a + b, 0)).toBeLessThan(103)
  // marks: one step for the group, one for a member
  const marks = ines.getByRole('region', { name: 'Marks' })
  await marks
    .getByRole('radiogroup', { name: /^Group: The pages as a whole/ })
    .getByRole('radio')
    .nth(1)
    .click()
  await marks
    .getByRole('radiogroup', { name: /What one wrote/ })
    .getByRole('radio')
    .nth(2)
    .click()
  await expect(marks).toContainText('8 / 8')
  const first = await ines.getByRole('link', { name: /^Mark / }).textContent()
  await ines.keyboard.press(']')
  await expect(ines.getByRole('link', { name: /^Mark / })).not.toHaveText(first!)
  await expect(marks).toContainText('3 / 5') // the group's step is this member's, too
  await expect(marks).toContainText('— / 8')
  await ines.getByRole('link', { name: /^Mark / }).click()
  await expect(ines.locator('.record .changes').first()).toBeVisible()
  await expect(ines.getByRole('heading', { name: /^The pages as a whole/ })).toContainText('3 / 5')
  await ines.goBack()
  // the history plays by itself to its end
  await open(ines, `${pathOf(world, world.city.id)}/history?group=${page.groupId}&page=${page.id}&a=7&b=8`)
  await ines.keyboard.press('h')
  await expect(ines.locator('.rail .at b').first()).toContainText('10 Malin')
  await expect(ines.getByRole('button', { name: /^Play the history/ })).toBeVisible()
})

test('an earlier version is brought back and undone; another group’s wiki is not there', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/404/)
  const page = await world.page(world.city.id, 'Port Amara', 'The two moles')
  const nico = await as('nico')
  await open(nico, `${pathOf(world, world.city.id)}/history?group=${page.groupId}&page=${page.id}&a=3&b=4`)
  await nico.getByRole('button', { name: 'Restore version 4' }).click()
  await expect(nico.getByText('Version 11 says what version 4 said')).toBeVisible()
  await nico.getByRole('button', { name: 'Undo' }).click()
  await expect(nico.locator('.rail li').first()).toContainText('back to 10')
  const paz = await as('paz')
  await open(paz, `${pathOf(world, world.city.id)}/history?group=${page.groupId}&page=${page.id}`)
  await expect(paz.getByText('lightermen')).toHaveCount(0)
})

test('a reader on a phone reads a page and comments on it; a wiki without pages invites', async ({
  as,
  world,
}) => {
  const liv = await as('liv', { width: 390, height: 800 })
  await open(liv, pathOf(world, world.city.id))
  await expect(liv.getByRole('article', { name: 'The chain' })).toBeVisible()
  expect(await liv.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await liv.getByRole('button', { name: /^Comment on the page/ }).click()
  await liv.getByRole('textbox', { name: 'Your comment' }).click()
  await liv.keyboard.type('Read on the tram.')
  await liv.getByRole('button', { name: /^Comment Ctrl/ }).click()
  await expect(liv.locator('.comment').filter({ hasText: 'Read on the tram.' })).toBeVisible()
  const ines = await as('ines')
  await open(
    ines,
    `${pathOf(world, world.walls.id)}?group=${(await world.page(world.walls.id, 'Enemies', 'Waves')).groupId}`,
  )
  await expect(ines.getByRole('article', { name: 'Waves' })).toBeVisible()
})
