import { expect, open, test } from './fixtures'

const voices = (id: string, query = '') => `/seminars/${id}/voices${query}`

test('on a Wednesday an instructor sees who speaks, who is silent and to whom, narrows it, and takes the table away', async ({
  as,
  world,
}) => {
  const ines = await as('ines')
  await open(ines, voices(world.seminar.id))
  await expect(ines.getByText(/24 of 24 have spoken/)).toBeVisible()
  await expect(ines.getByText(/^Your own presence/)).toBeVisible()
  // one activity: its silent stay in sight, with what they did do
  await ines.getByRole('button', { name: /What is looked at/ }).click()
  await ines.getByRole('button', { name: 'Who paid for the breakwater?' }).click()
  await expect(ines.getByRole('heading', { name: 'Who paid for the breakwater?' })).toBeVisible()
  await expect(ines.getByText(/have said nothing\./)).toBeVisible()
  const paz = ines.getByRole('row').filter({ hasText: 'Paz Jaramillo' })
  await expect(paz).toContainText(/has not opened it|looked in on|has read everything|a draft of/)
  // several by ticking them, and the one again by its title
  await ines.getByRole('button', { name: /What is looked at/ }).click()
  await ines.getByRole('checkbox', { name: 'Also Terms of the sea' }).check()
  await expect(ines.getByRole('heading', { name: 'Two activities' })).toBeVisible()
  await expect(ines.getByRole('button', { name: 'What is looked at: two activities' })).toBeVisible()
  await ines.getByRole('checkbox', { name: 'Also Terms of the sea' }).uncheck()
  await expect(ines.getByRole('heading', { name: 'Who paid for the breakwater?' })).toBeVisible()
  // one tick does not wait for the figures of the one before, nor undo it
  const figures = /\/api\/seminars\/[^/]+\/voices\?/
  const held: Array<() => Promise<void>> = []
  await ines.route(figures, route => {
    held.push(() => route.continue())
  })
  await ines.getByRole('checkbox', { name: 'Also Terms of the sea' }).check()
  await ines.getByRole('checkbox', { name: 'Also Walls of Sundvik' }).check()
  await expect(ines.getByRole('button', { name: 'What is looked at: three activities' })).toBeVisible()
  await ines.unroute(figures)
  for (const go of held) await go().catch(() => {}) // one that was overtaken is gone already
  await expect(ines.getByRole('heading', { name: 'Three activities' })).toBeVisible()
  await ines.getByRole('button', { name: 'Who paid for the breakwater?' }).click()
  await expect(ines.getByRole('heading', { name: 'Who paid for the breakwater?' })).toBeVisible()
  // by keys round the table: a seat is chosen, and its lines stand in words
  const seat = ines.getByRole('button', { name: /^Rasmus Okonjo: \d+ words/ })
  await ines.locator('.seat').first().focus()
  for (let i = 0; i < 30 && !(await seat.evaluate(el => el === document.activeElement)); i++)
    await ines.keyboard.press('ArrowRight')
  await ines.keyboard.press('Enter')
  await expect(seat).toHaveAttribute('aria-pressed', 'true')
  await expect(ines.getByRole('region', { name: 'Table plan' })).toContainText('answered by')
  await expect(ines.getByRole('row').filter({ hasText: 'Rasmus Okonjo' })).toHaveClass(/on/)
  await ines.keyboard.press('Escape')
  await expect(seat).toHaveAttribute('aria-pressed', 'false')
  // the table sorts, and what is not known stands last
  await ines.getByRole('button', { name: 'unfold' }).click()
  await ines.getByRole('button', { name: 'contributions' }).click()
  const counts = async () =>
    (
      await ines
        .getByRole('region', { name: 'Everyone' })
        .locator('tbody tr:not(.none):not(.fold) td:nth-child(2)')
        .allTextContents()
    )
      .map(Number)
      .filter(n => !Number.isNaN(n))
  const falling = await counts()
  expect(falling).toEqual([...falling].sort((a, b) => b - a))
  await ines.getByRole('button', { name: /^contributions/ }).click()
  await expect.poll(counts).toEqual([...falling].sort((a, b) => a - b))
  const download = ines.waitForEvent('download')
  await ines.getByRole('link', { name: 'Export as a table' }).click()
  expect((await download).suggestedFilename()).toMatch(/voices Who paid for the breakwater\.csv$/)
  // the ribbon narrows it to a week
  await ines.getByRole('button', { name: /^Week 4/ }).click()
  await expect(ines.getByText('only week 4')).toBeVisible()
  await ines.getByRole('region', { name: 'Most answered' }).getByRole('link').first().click()
  await expect(ines).toHaveURL(/#c-/)
})

test('on a phone and in the dark voices are read without sideways scrolling; a student has no way in', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/403/)
  const henrik = await as('henrik', { width: 390, height: 800, dark: true })
  await open(henrik, voices(world.seminar.id, `?activity=${world.breakwater.id}`))
  await expect(henrik.getByText(/have said nothing\./)).toBeVisible()
  expect(await henrik.evaluate('document.documentElement.scrollWidth <= innerWidth')).toBe(true)
  const liv = await as('liv')
  await open(liv, voices(world.seminar.id))
  await expect(liv.getByRole('heading', { name: /Voices/ })).toHaveCount(0)
  await expect(liv.getByRole('link', { name: 'Voices', exact: true })).toHaveCount(0)
})
