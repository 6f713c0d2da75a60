import type { Locator } from '@playwright/test'
import { expect, open, test } from './fixtures'

/** What of an element carries its meaning where colours are forced: its grounds, lines and height, and those of its marks. */
const shown = (element: Locator) =>
  element.evaluate(node =>
    [null, '::before', '::after'].map(part => {
      const style = getComputedStyle(node, part)
      const { backgroundColor, backgroundImage, borderColor, height, boxShadow } = style
      return [backgroundColor, backgroundImage, borderColor, height, boxShadow].join(' ')
    }),
  )

test('with forced colours nothing that carries a meaning is lost', async ({ as, world }) => {
  const page = await as('ines')
  await page.emulateMedia({ forcedColors: 'active' })
  const differ = async (what: string, one: Locator, other: Locator) => {
    await expect(one.first(), what).toBeVisible()
    await expect(other.first(), what).toBeVisible()
    expect(await shown(one.first()), what).not.toEqual(await shown(other.first()))
  }

  await open(page, `/seminars/${world.seminar.id}/plan`)
  const weeks = page.locator('.ribbon button')
  await differ('this week in the ribbon', page.locator('.ribbon .now'), weeks.last())
  const key = page.getByLabel('How phases are drawn').locator('dt')
  await differ('the key of the phases', key.nth(0), key.nth(1))
  await differ('phases of a bar', page.locator('.bar .write'), page.locator('.bar .respond'))

  await open(page, `/seminars/${world.seminar.id}/marking`)
  const mark = (standing: string) => page.getByRole('main').locator(`.fill.${standing}`)
  const standings = ['nothing', 'underWay', 'ready', 'returned']
  for (const [i, one] of standings.entries())
    for (const other of standings.slice(i + 1)) await differ(`${one} and ${other}`, mark(one), mark(other))

  await open(page, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk`)
  await page.locator('body').press('4')
  const rungs = page.locator('.rungs').first().locator('button')
  await differ('the step that was taken', page.locator('.rungs .at'), rungs.first())

  await open(page, `/seminars/${world.seminar.id}/gradebook`)
  await differ(
    'work in the gradebook',
    page.locator('.cell.work'),
    page.locator('.cell:not(.work):not(.held)'),
  )
  // what has the focus is outlined, whatever it is
  await page.keyboard.press('Tab')
  await page.keyboard.press('Tab')
  const outline = () =>
    page.evaluate(() => {
      const { outlineStyle, outlineWidth } = getComputedStyle(document.activeElement!)
      return `${outlineStyle} ${outlineWidth}`
    })
  for (let i = 0; i < 12; i++) {
    await page.keyboard.press('Tab')
    expect(await outline()).toBe('solid 3px')
  }
})
