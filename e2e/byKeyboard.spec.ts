import type { Locator, Page } from '@playwright/test'
import { expect, open, sentence, test } from './fixtures'

const FAR = 90 // stops of the tabulator within which anything on a page is to be reached

/** Goes on with the tabulator until something has the keyboard; there it is to be seen. */
async function reach(page: Page, target: Locator) {
  await expect(target).toBeVisible()
  for (let stop = 0; stop < FAR; stop++) {
    await page.keyboard.press('Tab')
    if (!(await target.evaluate(e => e.contains(document.activeElement)))) continue
    await expect(target).toBeInViewport()
    return
  }
  throw new Error('This is not reached by the keyboard.')
}
async function act(page: Page, target: Locator) {
  await reach(page, target)
  await page.keyboard.press('Enter')
}
const chosen = (page: Page) => page.evaluate(() => getSelection()!.toString())

test('by keyboard alone an activity is planned, written in, answered, marked with a citation, returned and read', async ({
  as,
  world,
}) => {
  const ines = await as('ines')
  await open(ines, `/seminars/${world.seminar.id}/plan`)
  await act(ines, ines.getByRole('button', { name: 'Plan an activity' }))
  const kinds = ines.getByRole('dialog', { name: 'Plan an activity' })
  await expect(kinds.getByRole('combobox')).toBeFocused()
  await act(ines, kinds.getByRole('button', { name: /^Discussion/ }))
  await reach(ines, ines.getByRole('textbox', { name: 'Title' }))
  await ines.keyboard.press('Control+a')
  await ines.keyboard.type('Who mends the nets?')
  await reach(ines, ines.getByRole('textbox', { name: 'Brief' }))
  await ines.keyboard.type('Who mends the nets, and who says so? Rest your answer on one line.')
  await act(ines, ines.getByRole('button', { name: 'Due: Sun 18 Oct, 23:59' }))
  await expect(ines.getByRole('textbox', { name: 'Due: day' })).toBeFocused()
  await ines.keyboard.type('fri 16 oct')
  await ines.keyboard.press('Tab')
  await expect(ines.getByRole('textbox', { name: 'Due: day' })).toHaveValue('Fri 16 Oct')
  await ines.keyboard.press('Shift+Tab')
  await ines.keyboard.type('soon')
  await ines.keyboard.press('Tab')
  await expect(ines.getByText('This is not a day. Write it like “29 Nov”.')).toBeVisible()
  await ines.keyboard.press('Enter') // on the month: a day later by arrow
  await expect(ines.getByRole('button', { name: 'Friday 16 October 2026' })).toBeFocused()
  await ines.keyboard.press('ArrowRight')
  await ines.keyboard.press('Enter')
  await expect(ines.getByRole('textbox', { name: 'Due: day' })).toHaveValue('Sat 17 Oct')
  await ines.keyboard.press('Escape')
  await expect(ines.getByRole('button', { name: 'Due: Sat 17 Oct, 23:59' })).toBeFocused()
  await act(ines, ines.getByRole('button', { name: 'How it is marked: no mark' }))
  await expect(ines.getByRole('radio', { name: 'no mark' })).toBeFocused()
  await ines.keyboard.press('ArrowDown') // round to the first
  await expect(ines.getByRole('radio', { name: 'points' })).toBeFocused()
  await ines.keyboard.press('Escape')
  await act(ines, ines.getByRole('button', { name: 'Rubric: no rubric' }))
  const contribution = ines.getByRole('radio', { name: /^Seminar contribution/ })
  for (let i = 0; i < 6 && !(await contribution.isChecked()); i++) await ines.keyboard.press('ArrowDown')
  await ines.keyboard.press('Escape')
  await expect(ines.getByRole('button', { name: 'Rubric: Seminar contribution' })).toBeFocused()
  await act(ines, ines.getByRole('button', { name: 'on publishing' }))
  await act(ines, ines.getByRole('button', { name: 'Publish and tell students' }))
  await expect(ines.getByText('Published, and 24 students are told.')).toBeVisible()
  const activity = ines.url().replace(/\/plan$/, '')

  // two students write, and one takes up words of the other
  const liv = await as('liv')
  await open(liv, activity)
  await reach(liv, liv.getByRole('textbox', { name: 'Your opening post' }))
  await liv.keyboard.insertText(`The guild mends them. The widow Aaltje says so. I add ${sentence(210)}`)
  await liv.keyboard.press('Control+Enter')
  await expect(liv.getByRole('article', { name: /^Liv Brandt/ })).toBeFocused()
  const paz = await as('paz')
  await open(paz, activity)
  await reach(paz, paz.getByRole('textbox', { name: 'Your opening post' }))
  await paz.keyboard.insertText(`Nobody mends them. I add ${sentence(210)}`)
  await act(paz, paz.getByRole('button', { name: /^Post/ }))
  await expect(paz.getByRole('article', { name: /^Paz/ })).toBeFocused()
  await paz.keyboard.press('u') // the next unanswered post
  await expect(paz.getByRole('article', { name: /^Liv Brandt/ })).toBeFocused()
  await paz.keyboard.press('.')
  await paz.keyboard.press('.')
  expect(await chosen(paz)).toBe('The widow Aaltje says so.')
  await paz.keyboard.press('<')
  expect(await chosen(paz)).toBe('The widow Aaltje says')
  await act(paz, paz.getByRole('button', { name: 'quote the chosen words' }))
  await expect(paz.getByRole('textbox', { name: 'Your reply to Liv' })).toBeFocused()
  await paz.keyboard.insertText(`She says it twice. I add ${sentence(60)}`)
  await paz.keyboard.press('Control+Enter')
  await expect(paz.getByText('quotes Liv')).toBeVisible()

  // the desk: to its student by arrows, to words by sentences, steps by number, and what is held is returned
  await open(ines, `${activity}/desk`)
  await reach(ines, ines.getByRole('toolbar', { name: /^Students/ }))
  await ines.keyboard.press('Home')
  const current = ines.getByRole('navigation', { name: 'Students' }).locator('[aria-current="true"]')
  await ines.keyboard.press('ArrowRight')
  await ines.keyboard.press('Enter')
  await expect(current).toHaveAttribute('aria-label', /^Liv Brandt/)
  await ines.keyboard.press('.')
  await ines.keyboard.press('.')
  expect(await chosen(ines)).toBe('The widow Aaltje says so.')
  await ines.keyboard.press('e')
  await expect(ines.locator('mark.cited')).toHaveText('The widow Aaltje says so.')
  const criteria = await ines.getByRole('region', { name: 'Rubric' }).getByRole('radiogroup').count()
  for (let n = 0; n < criteria; n++) await ines.keyboard.press('3')
  await expect(ines.locator('.total')).toContainText('complete')
  await ines.keyboard.press('w')
  await ines.keyboard.type('You rest it on what one person said.')
  await ines.keyboard.press('Control+Enter')
  await expect(ines.getByRole('status').filter({ hasText: /^Held: .* for Liv\./ })).toBeVisible()
  await ines.keyboard.press('Escape')
  await act(ines, ines.getByRole('button', { name: 'Return 1 held' }))
  await act(
    ines,
    ines.getByRole('dialog', { name: 'Return held marks' }).getByRole('button', { name: /^Return to one/ }),
  )
  await expect(ines.getByRole('status').filter({ hasText: 'Returned to one student.' })).toBeVisible()

  // and read
  await open(liv, `/seminars/${world.seminar.id}/week`)
  await act(liv, liv.getByRole('navigation').getByRole('link', { name: /^Feedback/ }))
  await liv.waitForURL('**/feedback')
  await act(liv, liv.getByRole('link', { name: /Who mends the nets/ }).first())
  await expect(liv.getByText('You rest it on what one person said.')).toBeVisible()
  await expect(liv.getByText('The widow Aaltje says so.').first()).toBeVisible()
})

test('by keyboard alone a reader opens the work of a peer, scores it, remarks on a passage and hands the review in', async ({
  as,
  world,
}) => {
  const page = await as('petra')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.reports.id}`)
  await page.keyboard.press('r')
  await page.waitForURL('**/reviews/**')
  const work = page.getByRole('region', { name: 'The work' })
  await expect(work).toBeVisible()
  await page.keyboard.press('.')
  const words = await chosen(page)
  expect(words.length).toBeGreaterThan(10)
  await expect(page.getByRole('button', { name: /Remark on this/ })).toBeVisible()
  await page.keyboard.press('e')
  const remark = page.getByRole('textbox', { name: 'Remark on this passage' })
  await expect(remark).toBeFocused()
  await page.keyboard.type('This is where I began to believe you.')
  for (const title of ['Question', 'Use of sources', 'Structure', 'Expression']) {
    await reach(page, page.getByRole('radiogroup', { name: `Score for ${title}` }))
    for (let half = 0; half < 6; half++) await page.keyboard.press('ArrowRight')
    await reach(page, page.getByLabel(`Remark on ${title}`))
    await page.keyboard.type(`I see ${sentence(12)} in it.`)
  }
  await expect(page.locator('.state')).toHaveText('saved')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('In.', { exact: true })).toBeVisible()
})
