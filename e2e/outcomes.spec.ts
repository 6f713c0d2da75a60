import { expect, open, test } from './fixtures'

test('learning outcomes are written, worded anew, retired with an undo, and then not offered for criteria', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/422|409/) // what is refused at its field; what somebody else has changed
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/library`)
  const list = page.getByRole('region', { name: 'Learning outcomes' })
  await list.getByRole('button', { name: 'Write an outcome' }).click()
  await page.keyboard.type('SEA 9')
  await page.keyboard.press('Enter')
  await expect(list.getByRole('alert')).toContainText('Write what students should have learnt.')
  await list.getByLabel('What students should have learnt').fill('Weighs a toll against who pays it.')
  await list.getByRole('button', { name: 'Add outcome' }).click()
  const added = list.getByRole('listitem').filter({ hasText: 'SEA 9' })
  await expect(added).toContainText('no criterion')

  await added.getByRole('button', { name: 'Edit SEA 9' }).click()
  await list.getByLabel('What students should have learnt').fill('Weighs a toll against those who pay it.')
  await list.getByRole('button', { name: 'Save changes' }).click()
  await expect(added).toContainText('against those who pay it.')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(added).toContainText('against who pays it.')

  // two have it open: both wordings are there, and nothing is lost
  await added.getByRole('button', { name: 'Edit SEA 9' }).click()
  const other = await as('ines')
  await open(other, `/seminars/${world.seminar.id}/library`)
  await other.getByRole('button', { name: 'Edit SEA 9' }).click()
  await other.getByLabel('What students should have learnt').fill('Theirs, and stored first.')
  await other.getByRole('button', { name: 'Save changes' }).click()
  await expect(other.getByText('“SEA 9” is changed wherever it stands.')).toBeVisible()
  await list.getByLabel('What students should have learnt').fill('Mine, and stored second.')
  await list.getByRole('button', { name: 'Save changes' }).click()
  await expect(list.getByText('Theirs, and stored first.')).toBeVisible()
  await list.getByRole('button', { name: 'Save changes' }).click()
  await expect(added).toContainText('Mine, and stored second.')

  const offered = async () => {
    const rubric = await page.context().newPage()
    await open(
      rubric,
      `/seminars/${world.seminar.id}/rubrics/${(await world.rubric('Seminar contribution')).id}`,
    )
    await rubric
      .getByRole('button', { name: /^Learning outcomes of/ })
      .first()
      .click()
    const words = await rubric.getByRole('dialog', { name: 'Learning outcomes' }).innerText()
    await rubric.close()
    return words
  }
  expect(await offered()).toContain('SEA 9')
  await added.getByRole('button', { name: 'Retire SEA 9' }).click()
  await expect(page.getByText('“SEA 9” is retired.')).toBeVisible()
  await expect(added).toHaveCount(0)
  expect(await offered()).not.toContain('SEA 9')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(added).toBeVisible()
})

test('a criterion is evidence of several outcomes, chosen by pointer or by keys', async ({ as, world }) => {
  const page = await as('ines')
  const rubric = await world.rubric('Notes in the margin')
  const path = `/seminars/${world.seminar.id}/rubrics/${rubric.id}`
  await open(page, path)
  const opener = page.getByRole('button', { name: /^Learning outcomes of Reads closely/ })
  await expect(opener).toHaveText('no outcome')
  await opener.click()
  const card = page.getByRole('dialog', { name: 'Learning outcomes' })
  await card.getByLabel(/^HC 4/).check()
  await card.getByLabel(/^HC 2/).check()
  await expect(opener).toHaveText('HC 2, HC 4')
  await page.keyboard.press('Escape')
  await expect(opener).toBeFocused()
  await expect(card).toBeHidden()
  await page.keyboard.press('Enter')
  await expect(card.getByLabel(/^HC 2/)).toBeFocused() // the first of those that are chosen
  await page.keyboard.press('Shift+Tab')
  await page.keyboard.press('Space')
  await page.keyboard.press('Escape')
  await expect(opener).toHaveText('HC 1, HC 2, HC 4')
  const criteriaOf = async (code: string) => {
    const library = await page.context().newPage()
    await open(library, `/seminars/${world.seminar.id}/library`)
    const outcomes = library.getByRole('region', { name: 'Learning outcomes' })
    const words = await outcomes.getByRole('listitem').filter({ hasText: code }).innerText()
    await library.close()
    return words
  }
  // it saves itself, and stays
  await expect.poll(() => criteriaOf('HC 1')).toContain('2 criteria')
  await open(page, path)
  await expect(opener).toHaveText('HC 1, HC 2, HC 4')
})
