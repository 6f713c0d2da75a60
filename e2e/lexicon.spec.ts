import { expect, open, test } from './fixtures'

test('a term is written, approved, and lights up wherever it is used, with its definition beside it', async ({
  as,
  world,
}) => {
  const path = `/seminars/${world.seminar.id}/activities/${world.terms.id}`
  const liv = await as('liv')
  await open(liv, path)
  await liv.keyboard.press('w')
  await liv.getByRole('textbox', { name: 'Term', exact: true }).fill('ballast book')
  await liv.getByRole('textbox', { name: 'Other forms' }).fill('ballast books')
  await liv.getByLabel('Category').selectOption('Words for words')
  await liv.getByRole('textbox', { name: 'Its definition' }).click()
  await liv.keyboard.insertText(
    'The book in which one writes down what one has thrown away: who, where, how much, and what it cost them to be seen doing it, in that order.',
  )
  await liv.getByRole('button', { name: /^Hand it in/ }).click()
  await expect(liv.getByText('The others see it once it is approved.')).toBeVisible()
  const ines = await as('ines')
  await open(ines, path)
  await ines.getByRole('button', { name: /^ballast book Liv/ }).click()
  await ines
    .locator('.entry')
    .filter({ hasText: 'ballast book' })
    .getByRole('button', { name: /show it|approve/i })
    .first()
    .click()
  await expect(ines.getByText('31 terms')).toBeVisible()
  // in the discussion of somebody else, once the page is opened: the longer term, not "ballast" within it
  const rasmus = await as('rasmus')
  await open(rasmus, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  const term = rasmus
    .locator('article', { hasText: 'Before you let the bar be a work of nature' })
    .locator('.prose a.term', { hasText: 'ballast book' })
  await term.evaluate(e => e.scrollIntoView({ block: 'center' })) // clear of what stays at the top
  await expect(term).toBeVisible()
  await term.hover()
  await expect(rasmus.getByRole('tooltip')).toContainText('what one has thrown away')
  await expect(rasmus.getByRole('tooltip')).toContainText('Liv Brandt')
  await rasmus.keyboard.press('Escape')
  await expect(rasmus.getByRole('tooltip')).toHaveCount(0)
  // from the keyboard, and on to the lexicon
  await rasmus.mouse.move(2, 2)
  await term.focus()
  await expect(rasmus.getByRole('tooltip')).toBeVisible()
  await rasmus.keyboard.press('Enter')
  await expect(rasmus).toHaveURL(new RegExp(`${world.terms.id}#c-`))
  await expect(rasmus.locator('.entry:focus')).toContainText('ballast book')
})

test('the lexicon is browsed by letter, category and author, searched, and talked about', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/422/) // a term that is there already
  const nico = await as('nico')
  await open(nico, `/seminars/${world.seminar.id}/activities/${world.terms.id}`)
  await nico.getByRole('group', { name: 'Letters' }).getByRole('button', { name: 'P', exact: true }).click()
  await expect(nico.locator('.entry h2')).toHaveText(['petition', 'pile', 'porter'])
  await nico.getByRole('button', { name: 'everything' }).click()
  await nico.getByRole('button', { name: /^People 5/ }).click()
  await expect(nico.locator('.entry')).toHaveCount(5)
  await nico.keyboard.press('/')
  await nico.keyboard.type('surname')
  await expect(nico.locator('.entry h2')).toHaveText(['fishwife'])
  await nico.locator('.entry').getByRole('button', { name: 'comment' }).click()
  await nico.getByRole('textbox', { name: /^Your comment/ }).click()
  await nico.keyboard.type('There is a Maret in our wiki. No surname either.')
  await nico.keyboard.press('Control+Enter')
  await expect(nico.getByText('There is a Maret in our wiki.')).toBeVisible()
  await nico.getByRole('button', { name: 'everything' }).click()
  await nico.getByRole('button', { name: 'Newest first' }).click()
  await expect(nico.locator('.entry h2').first()).toHaveText('interpreter')
  // a term that is there already is refused at its field, and nothing is lost
  await nico.keyboard.press('Escape')
  await nico.getByRole('button', { name: /^Write a term/ }).click()
  await nico.getByRole('textbox', { name: 'Term', exact: true }).fill('Silt')
  await nico.getByRole('textbox', { name: 'Its definition' }).click()
  await nico.keyboard.insertText('Mud with a history.')
  await nico.getByRole('button', { name: /^Hand it in/ }).click()
  await expect(nico.getByRole('alert')).toContainText('in the lexicon already')
  await expect(nico.getByRole('textbox', { name: 'Its definition' })).toContainText('Mud with a history.')
})

test('terms light up in a paper and in what is said in a recording, and words are chosen across them', async ({
  as,
  world,
}) => {
  const liv = await as('liv')
  await open(liv, `/seminars/${world.seminar.id}/activities/${world.roll.id}`)
  const inPaper = liv.locator('.words a.term', { hasText: /^toll$/ }).first()
  await inPaper.evaluate(e => e.scrollIntoView({ block: 'center' }))
  await inPaper.hover()
  await expect(liv.getByRole('tooltip')).toContainText('toll')
  await liv.mouse.move(2, 2)
  await expect(liv.getByRole('tooltip')).toHaveCount(0)
  // dragged from within a term on, its words are chosen like others
  const box = (await inPaper.boundingBox())!
  await liv.mouse.move(box.x + 2, box.y + box.height / 2)
  await liv.mouse.down()
  await liv.mouse.move(box.x + 90, box.y + box.height / 2, { steps: 8 })
  await liv.mouse.up()
  await expect.poll(() => liv.evaluate(() => getSelection()?.toString().length ?? 0)).toBeGreaterThan(8)
  const ines = await as('ines')
  await open(ines, `/seminars/${world.seminar.id}/activities/${world.pilot.id}`)
  const said = ines.locator('.transcript a.term').first()
  await said.evaluate(e => e.scrollIntoView({ block: 'center' }))
  await said.hover()
  await expect(ines.getByRole('tooltip')).toBeVisible()
})
