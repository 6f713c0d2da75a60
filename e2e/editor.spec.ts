import { expect, open, test } from './fixtures'

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
