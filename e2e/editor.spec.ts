import { expect, open, sentence, test } from './fixtures'

test('what is pasted from a word processor comes in clean, and nothing in it runs', async ({ as, world }) => {
  const liv = await as('liv')
  await open(liv, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  await liv
    .locator('article')
    .filter({ hasText: 'I speak for the grain shippers' })
    .getByRole('button', { name: 'reply' })
    .click()
  const box = liv.getByRole('textbox', { name: 'Your reply to Rasmus' })
  await box.click()
  const paste = (html: string) =>
    box.evaluate((element, text) => {
      const data = new DataTransfer()
      data.setData('text/html', text)
      element.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      )
    }, html)
  await paste(
    '<html xmlns:o="urn:schemas-microsoft-com:office:office"><head><style>p.MsoNormal{margin:0}</style></head><body><!--StartFragment--><p class=MsoNormal style="mso-fareast-language:EN-US"><span lang=EN-GB style="color:red">The <b>ballast</b> book<o:p></o:p></span></p><p class=MsoListParagraph><span style="mso-list:Ignore">·<span>&nbsp;&nbsp;</span></span>round stones</p><!--EndFragment--></body></html>',
  )
  for (const evil of [
    '<img src=x onerror="window.hit=1">',
    '<svg onload="window.hit=1"></svg>',
    '<a href="javascript:window.hit=1">a link</a>',
    '<iframe srcdoc="<script>parent.hit=1</script>"></iframe>',
    '<details open ontoggle="window.hit=1">open</details>',
    '<script>window.hit=1</script>',
    '<math><mtext><img src=x onerror="window.hit=1"></mtext></math>',
  ])
    await paste(`<p>${evil} and on</p>`)
  // and what is put in by hand: a table of another size, raised letters, a formula from its parts
  await box.press('Control+End')
  const form = liv.getByRole('toolbar', { name: /^Your reply to Rasmus/ })
  const more = async (name: string) => {
    await form.getByRole('button', { name: 'More …' }).click()
    await liv.getByRole('dialog', { name: 'More forms' }).getByRole('button', { name }).click()
    await expect(box).toBeFocused()
  }
  await more('Table')
  for (const act of ['Remove the row', 'Remove the column', 'Add a row'])
    await liv.getByRole('button', { name: act }).click()
  await liv.keyboard.type('tons')
  await more('Raised x²')
  await liv.keyboard.type('2')
  await form.getByRole('button', { name: 'Equation' }).click()
  const parts = liv.getByRole('toolbar', { name: 'Parts of a formula' })
  await parts.getByRole('button', { name: 'fraction' }).click()
  await liv.keyboard.type('1')
  for (let i = 0; i < 2; i++) await liv.keyboard.press('ArrowRight')
  await liv.keyboard.type('2')
  await expect(liv.getByLabel('LaTeX')).toHaveValue('\\frac{1}{2}')
  await liv.getByRole('button', { name: 'Insert' }).click()
  await liv.getByRole('button', { name: /^Post/ }).click()
  const posted = liv.locator('article').filter({ hasText: 'round stones' })
  await expect(posted.locator('.prose ul li')).toContainText('round stones')
  await expect(posted.locator('.prose tr')).toHaveCount(3)
  await expect(posted.locator('.prose tr td, .prose tr th')).toHaveCount(6)
  await expect(posted.locator('.prose sup')).toHaveText('2')
  await expect(posted.locator('.prose mfrac')).toHaveCount(1)
  await expect(posted.locator('.prose strong')).toHaveText('ballast')
  await expect(
    posted.locator('.prose').locator('img, svg, iframe, script, details, [style], [class*=Mso]'),
  ).toHaveCount(0)
  await expect(posted.locator('.prose a[href^="javascript"]')).toHaveCount(0)
  expect(await liv.evaluate('window.hit')).toBeUndefined()
})

const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
)

test('a student puts a picture into a post, says what it shows, and classmates see it where it stands', async ({
  as,
  world,
}) => {
  const talk = `/seminars/${world.seminar.id}/activities/${world.dredge.id}`
  const page = await as('paz')
  await open(page, talk)
  await page.getByRole('textbox', { name: 'Your opening post' }).click()
  await page.keyboard.insertText(`I speak for the pilots. ${sentence(200)}`)
  await page.getByLabel('Picture', { exact: true }).setInputFiles({
    name: 'mole.png',
    mimeType: 'image/png',
    buffer: PNG,
  })
  await page.getByLabel('What the picture shows').fill('The old mole at low water')
  await expect(page.getByText('205 of 200 words')).toBeVisible() // what a picture shows is no word of one's own
  await expect(page.locator('.box .state')).toHaveText('saved as draft')
  // it is there again after a reload, once, and not in the list of files beside the text
  await open(page, talk)
  await expect(page.locator('.box .prose img')).toHaveAttribute('alt', 'The old mole at low water')
  await expect(page.getByRole('button', { name: 'Remove mole.png' })).toHaveCount(0)
  await page.getByRole('button', { name: /^Post/ }).click()
  const seen = page.locator('article .prose img')
  await expect(seen).toHaveAttribute('alt', 'The old mole at low water')
  await expect.poll(() => seen.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(1)
  await expect(page.locator('article figure img')).toHaveCount(0)

  const classmate = await as('kadri')
  await open(classmate, talk)
  await classmate.getByRole('button', { name: 'all 205 words' }).click()
  await expect(classmate.getByRole('img', { name: 'The old mole at low water' })).toBeVisible()
})
