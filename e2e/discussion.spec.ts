import type { Page } from '@playwright/test'
import { chooseWords, drawn, expect, open, sentence, test } from './fixtures'

const talk = (world: { seminar: { id: string }; dredge: { id: string } }) =>
  `/seminars/${world.seminar.id}/activities/${world.dredge.id}`

test('a student writes before reading, sees the others, replies, and the checklist moves', async ({ as }) => {
  const page = await as('paz')
  await open(page, '/')
  await page
    .locator('.stop')
    .filter({ hasText: 'Should the harbour board dredge?' })
    .getByRole('link', { name: 'Begin' })
    .click()
  await expect(page.getByRole('heading', { name: 'Write before you read' })).toBeVisible()
  await expect(page.getByText('I speak for the grain shippers')).toHaveCount(0)
  const checks = page.locator('[data-check]')
  await expect(checks.nth(1)).toContainText('0 of 3')

  const box = page.getByRole('textbox', { name: 'Your opening post' })
  await box.click()
  await page.keyboard.insertText(`I speak for the bridge keeper. ${sentence(200)}`)
  await expect(page.getByText('206 of 200 words')).toBeVisible()
  await expect(page.locator('.box .state')).toHaveText('saved as draft')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('I speak for the grain shippers')).toBeVisible()
  await expect(page.getByRole('status').filter({ hasText: '13 classmates have written too' })).toBeVisible()
  await expect(checks.nth(0)).toContainText('206')
  await expect(page.getByText('14 opening posts')).toBeVisible()

  // a passage is taken up from the one post nobody has answered
  await page.getByRole('button', { name: /read Liv.s post/ }).click()
  await chooseWords(page, '.prose', 'what they could have known in 1688')
  await page.getByRole('button', { name: 'quote the chosen words' }).click()
  await page.getByRole('textbox', { name: 'Your reply to Liv' }).click()
  await page.keyboard.insertText(`${sentence(60)} Hafenordnung`)
  await page.keyboard.press('Control+Shift+ArrowLeft')
  await drawn(page) // the editor hears of a selection once it is drawn
  const form = page.getByRole('toolbar', { name: /^Your reply to Liv/ })
  await form.getByRole('combobox', { name: /^Language of the chosen words/ }).selectOption('German')
  await expect(page.locator('.ProseMirror span[lang="de"]')).toHaveText('Hafenordnung')
  await page.getByRole('button', { name: /^Post/ }).click()
  await expect(checks.nth(1)).toContainText('1 of 3')
  await expect(page.getByText('quotes Liv')).toBeVisible()
  await expect(page.locator('article .prose span[lang="de"]')).toHaveText('Hafenordnung')
  await expect(
    page.locator('mark.taken').filter({ hasText: 'what they could have known in 1688' }),
  ).toBeVisible()
  await expect(page.getByText(/Nobody has answered Liv/)).toHaveCount(0)

  // by keyboard alone: to the next unanswered post, reply, post
  await page
    .locator('main')
    .first()
    .click({ position: { x: 4, y: 4 } })
  await page.keyboard.press('u')
  await page.keyboard.press('r')
  await expect(page.getByRole('textbox', { name: /Your reply to/ })).toBeFocused()
  await page.keyboard.insertText(sentence(61))
  await page.keyboard.press('Control+Enter')
  await expect(checks.nth(1)).toContainText('2 of 3')
})

test('an opening post that one has withdrawn is put back from where one writes, after a reload, too', async ({
  as,
  world,
}) => {
  const page = await as('paz')
  await open(page, talk(world))
  await page.getByRole('textbox', { name: 'Your opening post' }).click()
  await page.keyboard.insertText(`I speak for the lamp trimmer. ${sentence(20)}`)
  await page.keyboard.press('Control+Enter')
  await page.getByRole('button', { name: 'Withdraw it' }).click()
  await expect(page.getByText('You have withdrawn your opening post')).toBeVisible()
  await expect(page.getByText('I speak for the grain shippers')).toHaveCount(0)
  await open(page, talk(world))
  await page.getByRole('button', { name: 'Restore' }).click()
  await expect(page.getByText('I speak for the lamp trimmer.')).toBeVisible()
  await expect(page.getByText('I speak for the grain shippers')).toBeVisible()
})

test('what one has just posted can be withdrawn and put back', async ({ as, world }) => {
  const page = await as('paz')
  await open(page, talk(world))
  await page.getByRole('textbox', { name: 'Your opening post' }).click()
  await page.keyboard.insertText('I speak too soon.')
  await page.getByRole('button', { name: /^Post/ }).click()
  await page.getByRole('button', { name: 'Withdraw it' }).click()
  await expect(page.getByRole('heading', { name: 'Write before you read' })).toBeVisible()
  await expect(page.getByText('I speak for the grain shippers')).toHaveCount(0)
  await page.locator('main').getByRole('button', { name: 'Restore' }).click()
  await expect(page.getByText('I speak too soon.')).toBeVisible()
})

test('reading: new posts are marked, keys jump, one voice can be read alone, nods count once', async ({
  as,
  world,
}) => {
  const page = await as('liv')
  await open(page, talk(world))
  await expect(page.getByText('13 opening posts')).toBeVisible()
  const fresh = page.locator('.when.new')
  await expect(fresh.first()).toBeVisible()
  await page.keyboard.press('i')
  await expect(page.getByRole('article', { name: /Ines Okafor-Lind/ })).toBeFocused()
  const post = page.getByRole('article', { name: /Ines Okafor-Lind/ }).locator('..')
  await expect(post.getByText('9 nods, yours too').first()).toBeVisible()
  await page.keyboard.press('n')
  await expect(post.getByText('8 nods', { exact: true }).first()).toBeVisible()
  await page.getByRole('button', { name: /^Oona, \d contributions/ }).click()
  await expect(page.getByRole('article')).toHaveCount(2)
  await page.getByRole('button', { name: 'everyone' }).click()
  await page.getByRole('button', { name: 'Only new' }).click()
  await expect(fresh.first()).toBeVisible()
  // the second visit knows what was seen
  await open(page, talk(world))
  await expect(page.locator('.when.new')).toHaveCount(0)
  await page.getByRole('button', { name: 'Only new' }).click()
  await expect(page.getByText('Nothing new since you were last here.')).toBeVisible()
})

test('text from a word processor comes in clean', async ({ as, world }) => {
  const page = await as('paz')
  await open(page, talk(world))
  const box = page.getByRole('textbox', { name: 'Your opening post' })
  await box.click()
  await box.evaluate(element => {
    const data = new DataTransfer()
    data.setData(
      'text/html',
      '<!--StartFragment--><p class=MsoNormal style="color:red"><span style="font-family:Wingdings">The <b>toll</b> roll<o:p></o:p></span></p><img src=x onerror=alert(1)><!--EndFragment-->',
    )
    element.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    )
  })
  await expect(box.locator('strong')).toHaveText('toll')
  expect(await box.innerHTML()).not.toMatch(/style=|Mso|o:p|onerror/)
})

test('what is written from right to left stands so, beside what is not', async ({ as, world }) => {
  const page = await as('paz')
  await open(page, talk(world))
  await page.getByRole('textbox', { name: 'Your opening post' }).click()
  await page.keyboard.insertText('ميناء المدينة مفتوح للجميع')
  await page.keyboard.press('Enter')
  await page.keyboard.insertText('The harbour is open.')
  await page.keyboard.press('Control+Enter')
  const post = page.getByRole('article', { name: /^Paz/ })
  const edges = (words: string) =>
    post.getByText(words).evaluate(paragraph => {
      const range = document.createRange()
      range.selectNodeContents(paragraph)
      const [text, whole] = [range.getBoundingClientRect(), paragraph.getBoundingClientRect()]
      return { left: text.left - whole.left, right: whole.right - text.right }
    })
  const arabic = await edges('ميناء المدينة')
  expect(arabic.right).toBeLessThan(2)
  expect(arabic.left).toBeGreaterThan(50)
  const english = await edges('The harbour is open.')
  expect(english.left).toBeLessThan(2)
})

test('staff close a thread and then the discussion to new words; an open page follows, and what is typed is kept', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/422/) // the reply that comes too late
  const [ines, liv] = [await as('ines'), await as('liv')]
  const path = `/seminars/${world.seminar.id}/activities/${world.breakwater.id}`
  await open(liv, path)
  await open(ines, path)
  const first = (page: Page) => page.locator('article.p').filter({ hasText: 'opening post' }).nth(1)
  const post = first(liv)
  await post.getByRole('button', { name: 'reply' }).click()
  const box = liv.getByRole('textbox', { name: /^Your reply to/ })
  await box.pressSequentially('But who held the chain?')
  await first(ines).getByRole('button', { name: 'close to new words' }).click()
  await expect(
    ines.getByText('This thread is closed: students can read it and write nothing new.'),
  ).toBeVisible()
  await expect(post.getByText('closed to new words')).toBeVisible()
  await expect(post.getByRole('button', { name: 'reply' })).toHaveCount(0)
  await box.press('Control+Enter')
  await expect(liv.getByText('The instructor has closed this thread to new words.')).toBeVisible()
  await expect(box).toContainText('But who held the chain?')
  await ines.getByRole('button', { name: 'Undo' }).click()
  await expect(post.getByText('closed to new words')).toHaveCount(0)
  // all of it, from the line above the talk
  await ines.locator('.sort').getByRole('button', { name: 'close to new words' }).click()
  await expect(liv.locator('.sort').getByText('closed to new words')).toBeVisible()
  await expect(liv.getByRole('button', { name: 'reply' })).toHaveCount(0)
  await ines.locator('.sort').getByRole('button', { name: 'open to new words' }).click()
  await expect(liv.locator('.sort').getByText('closed to new words')).toHaveCount(0)
  await box.press('Control+Enter')
  await expect(liv.locator('article.p').filter({ hasText: 'But who held the chain?' })).toBeVisible()
})
