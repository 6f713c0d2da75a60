import { readFile } from 'node:fs/promises'
import { eq, inArray } from 'drizzle-orm'
import * as t from '#server/database/schema'
import { testDatabase } from '#server/testing/database'
import { SETUP_CODE, testServer } from '#server/testing/server'
import { notifyOfMessages } from '#server/services/messaging/writeTo'
import { expect, open, test } from './fixtures'

const inTwoMinutes = () => new Date(Date.parse('2026-10-14T08:22:00Z'))

test('an instructor writes to the silent, one by one, takes it back, writes again; an answer comes back to the thread', async ({
  as,
  world,
}) => {
  const ines = await as('ines')
  await open(ines, `/seminars/${world.seminar.id}/voices?activity=${world.breakwater.id}`)
  await ines.getByRole('button', { name: 'Write to the 2 who have not spoken' }).click()
  await expect(ines.getByRole('heading', { name: 'Write to two students, one by one' })).toBeVisible()
  const sheet = ines.getByRole('region', { name: 'As it arrives' })
  await ines.getByRole('button', { name: 'Paz Jaramillo', exact: true }).click()
  await expect(sheet).toContainText('Dear Paz,')
  await expect(sheet.locator('mark').filter({ hasText: 'the opening post' })).toBeVisible()
  await sheet.getByRole('button', { name: 'Write to Paz in other words' }).click()
  await sheet
    .getByLabel('Your words to Paz Jaramillo alone')
    .fill('Dear Paz,\n\nis it the reading or the hour? Tell me.')
  // a closed tab loses nothing
  await ines.reload()
  await ines.getByRole('button', { name: /^Paz Jaramillo/ }).click()
  await expect(sheet.getByLabel('Your words to Paz Jaramillo alone')).toHaveValue(
    /is it the reading or the hour/,
  )
  await ines.keyboard.press('Control+Enter')
  await expect(ines.getByText('Two messages go out within a minute.')).toBeVisible()
  await ines.getByRole('button', { name: 'Undo' }).click()
  await ines.getByRole('button', { name: /^Paz Jaramillo/ }).click()
  await expect(sheet.getByLabel('Your words to Paz Jaramillo alone')).toHaveValue(
    /is it the reading or the hour/,
  )
  await ines.getByRole('button', { name: 'Send 2 messages' }).click()
  await expect(
    ines.getByRole('navigation', { name: 'Messages' }).getByText('goes out within a minute'),
  ).toHaveCount(2)
  expect(await notifyOfMessages(world.db, inTwoMinutes())).toBe(2)

  const paz = await as('paz', { width: 390, height: 800 })
  await open(paz, `/seminars/${world.seminar.id}/week`)
  await paz.getByRole('link', { name: /^Messages/ }).click()
  await paz.getByRole('link', { name: /About “Who paid for the breakwater/ }).click()
  await expect(
    paz.getByText('is it the reading or the hour? Tell me.', { exact: false }).last(),
  ).toBeVisible()
  expect(await paz.evaluate('document.documentElement.scrollWidth <= innerWidth')).toBe(true)
  await paz.getByRole('textbox').fill('The hour. I will write tonight.')
  await paz.getByRole('textbox').press('Control+Enter')
  await expect(
    paz.getByRole('listitem').filter({ hasText: 'The hour. I will write tonight.' }).last(),
  ).toBeVisible()
  await expect(paz.getByRole('textbox')).toHaveValue('')

  await open(ines, `/seminars/${world.seminar.id}/messages`)
  await ines.getByRole('link', { name: /Paz Jaramillo.*new/ }).click()
  await expect(ines.getByRole('region', { name: 'With Paz Jaramillo' })).toContainText(
    'The hour. I will write tonight.',
  )
  await ines.getByRole('link', { name: 'Standing rules' }).click()
  await expect(ines.getByText('off, has sent nothing')).toBeVisible()
  await ines.getByRole('button', { name: 'Switch on' }).click()
  await expect(ines.getByText('on, has sent nothing')).toBeVisible()
})

test('presence shows whom one has neglected, each act and why it counts; a student’s page goes through the term; outcomes say who is there', async ({
  as,
  world,
}) => {
  const ines = await as('ines')
  await open(ines, `/seminars/${world.seminar.id}/voices`)
  await ines.getByRole('navigation', { name: 'Voices' }).getByRole('link', { name: 'Presence' }).click()
  const row = ines.getByRole('row').filter({ hasText: 'Wanjiru Westergaard' })
  await row.getByRole('button', { name: 'Wanjiru Westergaard' }).click()
  await expect(ines.getByText('written to them alone').first()).toBeVisible()
  const download = ines.waitForEvent('download')
  await ines.getByRole('link', { name: 'as PDF' }).click()
  expect((await readFile(await (await download).path())).subarray(0, 5).toString()).toBe('%PDF-')
  await ines.getByRole('link', { name: 'Wanjiru through the term' }).click()
  await expect(ines.getByRole('heading', { name: 'Wanjiru Westergaard' })).toBeVisible()
  await expect(ines.getByRole('region', { name: 'Measures' })).toContainText('reading ease')
  await expect(ines.locator('.apexcharts-bar-area').first()).toBeVisible()
  await ines.keyboard.press('j')
  await expect(ines.getByRole('heading', { name: 'Illari Yupanqui' })).toBeVisible()
  await ines.getByRole('link', { name: 'Gradebook' }).click()
  await ines.getByRole('link', { name: 'Outcomes' }).click()
  await expect(ines.getByText('Weighs what a source can show against what it cannot.')).toBeVisible()
  await ines.getByLabel('Percent of the points from which an outcome is reached').fill('90')
  await ines.keyboard.press('Enter')
  await expect(ines).toHaveURL(/from=90/)
  await expect(ines.getByText(/not yet/).first()).toBeVisible()
})

test('closing questions are asked, answered without a name, and read in charts and words', async ({
  as,
  world,
}) => {
  const ines = await as('ines')
  await open(ines, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  await ines.getByRole('link', { name: 'Ask closing questions' }).click()
  const from = ines.getByRole('group', { name: 'Open from' })
  await from.getByRole('textbox', { name: 'Open from: day' }).fill('15 Oct')
  await from.getByRole('textbox', { name: 'Open from: time' }).fill('8')
  await ines.getByLabel('Question 3').fill('What would you keep?')
  await ines.getByRole('button', { name: 'Save questions' }).click()
  await expect(ines.getByText(/^The questions open Thu 15 Oct/)).toBeVisible()
  await ines.getByRole('button', { name: 'Open now' }).click()
  await expect(ines.getByText('The questions are open; students are told within a minute.')).toBeVisible()
  await expect(ines.getByText('0 of 24 have answered. Names are not kept.')).toBeVisible()

  const liv = await as('liv', { width: 390, height: 800, dark: true })
  await open(liv, `/seminars/${world.seminar.id}/week`)
  await liv
    .getByText(/Three questions about “Should the harbour board dredge/)
    .locator('xpath=following-sibling::a')
    .click()
  await expect(liv.getByText('Names are not kept.')).toBeVisible()
  await liv.locator('.scale label', { hasText: '4' }).click()
  await liv.getByRole('checkbox', { name: 'the reading' }).check()
  await liv.getByLabel('What would you keep?').fill('The toll rolls.')
  await liv.reload()
  await expect(liv.getByLabel('What would you keep?')).toHaveValue('The toll rolls.') // kept until it is handed in
  await expect(liv.getByText('3 of 3 answered')).toBeVisible()
  expect(await liv.evaluate('document.documentElement.scrollWidth <= innerWidth')).toBe(true)
  await liv.getByRole('button', { name: 'Hand in' }).click()
  await expect(liv.getByText('Thank you: it is in.')).toBeVisible()
  await open(liv, `/seminars/${world.seminar.id}/activities/${world.dredge.id}/closing`)
  await expect(liv.getByText('You have answered these questions. Thank you.')).toBeVisible()
  await expect(liv.getByRole('button', { name: 'Hand in' })).toHaveCount(0)

  await ines.reload()
  await expect(ines.getByText('1 of 24 have answered.')).toBeVisible()
  await expect(ines.getByText(/a single one would show whose it is/)).toBeVisible()
  await expect(ines.getByText('The toll rolls.')).toHaveCount(0)
  await open(ines, `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/closing`)
  await expect(ines.getByText('17 of 24 have answered.')).toBeVisible()
  await expect(ines.getByLabel('Words, by how many answers they stand in')).toContainText('group')
  await expect(ines.locator('.apexcharts-bar-area').nth(3)).toBeVisible() // of the first nobody chose the lowest step

  // what has closed is asked again, as a round of its own; the one before is read beside it
  await ines.getByRole('button', { name: 'Ask again' }).click()
  await expect(ines.getByText('A further round: its answers stand by themselves')).toBeVisible()
  await ines.getByLabel('Question 1').fill('And a week later?')
  await ines.getByRole('button', { name: 'Save questions' }).click()
  await expect(ines.getByText('0 of 24 have answered. Names are not kept.')).toBeVisible()
  await ines.getByRole('link', { name: /^Round 1, closed/ }).click()
  await expect(ines.getByText('17 of 24 have answered.')).toBeVisible()
  await expect(ines.getByRole('button', { name: 'Ask again' })).toHaveCount(0)
  await liv.goto(`/seminars/${world.seminar.id}/activities/${world.breakwater.id}/closing`)
  await expect(liv.getByText('And a week later?')).toBeVisible()
})

test('a seminar leaves as an archive and is brought back elsewhere', async ({ as, world, browser }) => {
  const ines = await as('ines')
  await open(ines, `/seminars/${world.seminar.id}/settings`)
  const download = ines.waitForEvent('download')
  await ines.getByRole('link', { name: 'Download everything (archive)' }).click()
  const path = await (await download).path()
  const empty = await testDatabase({ empty: true })
  const server = await testServer(empty.url, { JOVREL_DEMO: '' })
  const context = await browser.newContext({
    baseURL: server.address,
    viewport: { width: 1280, height: 800 },
  })
  try {
    const there = await context.newPage()
    await context.request.post('/api/account', {
      data: {
        givenName: 'Ines',
        familyName: 'Okafor-Lind',
        email: 'ines@northmere.example',
        password: 'harbour stone',
        code: SETUP_CODE,
      },
      headers: { origin: server.address },
    })
    await context.request.post('/api/session', {
      data: { email: 'ines@northmere.example', password: 'harbour stone' },
      headers: { origin: server.address },
    })
    await open(there, '/?all=1')
    await there.getByLabel('The archive').setInputFiles({
      name: 'broken.zip',
      mimeType: 'application/zip',
      buffer: (await readFile(path)).subarray(0, 2000),
    })
    await expect(there.getByRole('alert')).toContainText('Nothing was imported.')
    await there.getByLabel('The archive').setInputFiles(path)
    await expect(there.getByText(/“Harbour Cities, 1500–1800” is back, with \d+ people/)).toBeVisible()
    await there.getByRole('link', { name: 'Open it' }).click()
    await expect(there.getByRole('link', { name: 'Gradebook' })).toBeVisible()
  } finally {
    await context.close()
    await server.stop()
    await empty.drop()
  }
})

test('a person is erased by their name typed out', async ({ as, world }) => {
  const ines = await as('ines')
  const texts = ['Ask Emrys, who measured it.', 'Saint Emrys kept the light.']
  const posts = [
    await world.contribution('kadri', world.breakwater.id),
    await world.contribution('nico', world.breakwater.id),
  ]
  for (const [n, post] of posts.entries())
    await world.db.update(t.contributions).set({ text: texts[n]! }).where(eq(t.contributions.id, post.id))
  await open(ines, `/seminars/${world.seminar.id}/people`)
  await ines.getByRole('button', { name: 'Data: what is kept of Emrys Tal' }).click()
  const erase = ines.getByRole('button', { name: 'Erase Emrys' })
  await expect(erase).toBeDisabled()
  // where his first name stands alone, staff say whether it means him
  const places = ines.getByRole('group', { name: /stands by itself in .* Tick where it means Emrys Tal/ })
  const named = places.getByRole('checkbox', { name: /Ask Emrys, who measured it/ })
  await expect(named).toBeChecked()
  const other = places.getByRole('checkbox', { name: /Saint Emrys kept the light/ })
  await other.uncheck()
  await ines.getByLabel('Type “Emrys Tal” to do it').fill('Emrys Tal')
  await erase.click()
  await expect(ines.getByText('Erased. What they did stands under “Former student 1” now.')).toBeVisible()
  await expect(ines.getByText('Emrys Tal')).toHaveCount(0)
  await expect(ines.getByText('Former student 1').first()).toBeVisible()
  const stored = await world.db
    .select({ text: t.contributions.text })
    .from(t.contributions)
    .where(
      inArray(
        t.contributions.id,
        posts.map(p => p.id),
      ),
    )
  expect(stored.map(c => c.text).sort()).toEqual(['Ask student, who measured it.', texts[1]])
})
