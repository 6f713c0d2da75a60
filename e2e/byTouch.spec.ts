import type { Page } from '@playwright/test'
import { chooseWords, expect, open, sentence, test } from './fixtures'

const PHONE = { width: 390, height: 844, touch: true }

/** A finger that goes to the side over the middle of the page. */
async function swipe(page: Page, by: number) {
  const finger = await page.context().newCDPSession(page)
  const at = (type: 'touchStart' | 'touchMove' | 'touchEnd', x: number) =>
    finger.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: type === 'touchEnd' ? [] : [{ x, y: 500 }],
    })
  const from = by < 0 ? 300 : 90
  await at('touchStart', from)
  for (let step = 1; step <= 5; step++) await at('touchMove', from + (by * step) / 5)
  await at('touchEnd', from + by)
}
const isNarrow = (page: Page) =>
  page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)

test('by thumb on a phone a student writes, answers and reads a letter, and an instructor plans, marks and returns', async ({
  as,
  world,
}) => {
  const paz = await as('paz', PHONE)
  await open(paz, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  await paz.getByRole('textbox', { name: 'Your opening post' }).tap()
  await paz.keyboard.insertText(`I speak for the bridge keeper. ${sentence(200)}`)
  await paz.getByRole('button', { name: /^Post/ }).tap()
  await expect(paz.getByText('14 opening posts')).toBeVisible()
  const post = paz.getByRole('article', { name: /^Liv Brandt/ })
  await post
    .getByRole('button', { name: /^reply/ })
    .first()
    .tap()
  await paz.getByRole('textbox', { name: 'Your reply to Liv' }).tap()
  await paz.keyboard.insertText(sentence(60))
  await paz.getByRole('button', { name: /^Post/ }).tap()
  await expect(paz.locator('[data-check]').nth(1)).toContainText('1 of 3')
  expect(await isNarrow(paz)).toBe(true)

  // an instructor plans by choosing, not by dragging
  const ines = await as('ines', PHONE)
  await open(ines, `/seminars/${world.seminar.id}/plan`)
  await ines.getByRole('button', { name: 'Plan an activity' }).tap()
  await ines
    .getByRole('dialog', { name: 'Plan an activity' })
    .getByRole('button', { name: /^Exit note/ })
    .tap()
  await ines.getByRole('textbox', { name: 'Title' }).fill('One word')
  await ines.getByRole('textbox', { name: /^(Brief|Question)/ }).fill('Which word stays with you?')
  await ines.getByRole('button', { name: 'on publishing' }).tap()
  await ines.getByRole('button', { name: 'Publish and tell students' }).tap()
  await expect(ines.getByText('Published, and 24 students are told.')).toBeVisible()
  expect(await isNarrow(ines)).toBe(true)

  // the desk shows one part at a time; going on is in reach in each
  await open(ines, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk`)
  const parts = ines.getByRole('toolbar', { name: 'Parts of the desk' })
  const goOn = ines.getByRole('button', { name: 'Hold and go on' })
  await expect(ines.getByRole('region', { name: 'Record' })).toBeVisible()
  await expect(ines.getByRole('region', { name: 'Rubric' })).toBeHidden()
  await expect(goOn).toBeInViewport()
  await chooseWords(ines, '[data-line]', 'Rasmus is right that the exemption bought consent')
  await ines
    .locator('[data-contribution]', { hasText: 'Rasmus is right' })
    .getByRole('button', { name: /^cite/ })
    .tap()
  await expect(ines.locator('mark.cited').filter({ hasText: 'Rasmus is right' })).toBeVisible()
  await swipe(ines, 200)
  const rubric = ines.getByRole('region', { name: 'Rubric' })
  await expect(rubric).toBeVisible()
  await expect(ines.getByRole('region', { name: 'Record' })).toBeHidden()
  // evidence has its step already
  for (const steps of (await rubric.getByRole('radiogroup').all()).slice(1))
    await steps.getByRole('radio').nth(2).tap()
  await expect(ines.locator('.desk-foot')).not.toContainText('so far')
  await expect(goOn).toBeInViewport()
  await parts.getByRole('button', { name: 'Letter' }).tap()
  await ines.getByRole('textbox', { name: 'Letter to Mireille' }).tap()
  await ines.keyboard.insertText('You let Rasmus change your mind in public.')
  await expect(goOn).toBeInViewport()
  await goOn.tap()
  await expect(ines.getByRole('status').filter({ hasText: /^Held: .* for Mireille\./ })).toBeVisible()
  const strip = ines.getByRole('navigation', { name: 'Students' })
  await strip.getByRole('button', { name: 'Mireille Estrada-Holm, held' }).tap()
  await ines.getByRole('button', { name: 'Return now' }).tap()
  await expect(strip.getByRole('button', { name: 'Mireille Estrada-Holm, returned' })).toBeVisible()
  expect(await isNarrow(ines)).toBe(true)

  const mireille = await as('mireille', PHONE)
  await open(mireille, `/seminars/${world.seminar.id}/week`)
  await mireille.getByRole('link', { name: 'Read the whole letter' }).tap()
  await expect(mireille.getByText('You let Rasmus change your mind in public.')).toBeVisible()
  expect(await isNarrow(mireille)).toBe(true)
})

test('by thumb on a phone a student reviews the work of a peer', async ({ as, world }) => {
  const page = await as('petra', PHONE)
  await open(page, `/seminars/${world.seminar.id}/activities/${world.reports.id}`)
  // which of them is assigned first is drawn
  await page
    .getByRole('region', { name: 'What you review' })
    .getByRole('link', { name: /not begun/ })
    .first()
    .tap()
  await page.waitForURL('**/reviews/**')
  for (const title of ['Question', 'Use of sources', 'Structure', 'Expression']) {
    await page
      .getByRole('radiogroup', { name: `Score for ${title}` })
      .getByRole('radio', { name: '4 of 5' })
      .tap()
    await page.getByLabel(`Remark on ${title}`).fill(`I see ${sentence(12)} in it.`)
  }
  await page.getByRole('button', { name: /^Hand it in/ }).tap()
  await expect(page.getByText('In.', { exact: true })).toBeVisible()
  expect(await isNarrow(page)).toBe(true)
})
