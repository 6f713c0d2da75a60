import { email } from '#server/testing/world'
import { expect, open, test } from './fixtures'

test('one signs in by address and password, is told what is wrong, lands where one wanted to go, and leaves', async ({
  page,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/401/)
  await page.goto(`${world.address}/seminars/${world.seminar.id}/marking`)
  await page.waitForLoadState('networkidle')
  await page.getByLabel('E-mail').fill('Ines@northmere.example')
  await page.getByLabel('Password').fill('harbor')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('E-mail and password do not belong together')
  await expect(page.getByLabel('E-mail')).toHaveValue('Ines@northmere.example')
  await page.getByLabel('Password').fill('harbour')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Marking' })).toBeVisible()
  await page.getByRole('button', { name: /appearance and signing out/ }).click()
  const answer = page.waitForResponse(r => r.request().method() === 'DELETE')
  await page.getByRole('button', { name: 'Sign out' }).click()
  expect((await answer).status()).toBe(200)
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
})

test('what is typed before the scripts have arrived is there when they have', async ({ page, world }) => {
  let arrive = () => {}
  const arrived = new Promise<void>(resolve => (arrive = resolve))
  await page.route('**/_nuxt/*.js', async route => {
    await arrived
    await route.continue()
  })
  await page.goto(`${world.address}/sign-in`, { waitUntil: 'commit' })
  await page.getByLabel('E-mail').fill(email('liv'))
  await page.getByLabel('Password').fill('harbour')
  arrive()
  await page.waitForLoadState()
  await expect(page.getByLabel('E-mail')).toHaveValue(email('liv'))
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(page.getByRole('banner')).toContainText('My week')
})

test('the caret stays where somebody put it, when the page is slow to notice that it is seen', async ({
  page,
  world,
}) => {
  await page.addInitScript(() => {
    const held: (() => void)[] = []
    const Observer = window.IntersectionObserver
    window.IntersectionObserver = class extends Observer {
      constructor(notice: IntersectionObserverCallback, options?: IntersectionObserverInit) {
        super((entries, self) => held.push(() => notice(entries, self)), options)
      }
    }
    Object.assign(window, { noticeAll: () => held.splice(0).forEach(notice => notice()) })
  })
  await open(page, `${world.address}/sign-in`)
  await page.evaluate('new Promise(drawn => requestAnimationFrame(() => requestAnimationFrame(drawn)))')
  await expect(page.getByLabel('E-mail')).toBeFocused()
  await page.keyboard.type(email('liv'))
  await page.keyboard.press('Tab')
  await page.evaluate('noticeAll()')
  await page.keyboard.type('harbour')
  await expect(page.getByLabel('E-mail')).toHaveValue(email('liv'))
  await expect(page.getByLabel('Password')).toHaveValue('harbour')
})

test('the demo offers its people at one click', async ({ page, world }) => {
  await page.goto(world.address)
  await page.waitForLoadState('networkidle')
  await page.getByRole('button', { name: /Rasmus Okonjo/ }).click()
  await expect(page.getByRole('heading', { name: 'Wednesday, 14 October' })).toBeVisible()
  await page.getByRole('link', { name: 'Feedback' }).click()
  await page.getByRole('link', { name: /Who paid for the breakwater/ }).click()
  await expect(page.getByText('Is there an institution you do not like?')).toBeVisible()
})

test('the term plan draws what is planned, and the ribbon narrows it to a week', async ({ as, world }) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/plan`)
  await expect(page.getByText('11 ready to mark')).toHaveCount(2) // the breakwater, and the source reports
  await expect(
    page.getByRole('group', { name: /write until Thu 8 Oct, 23:59, respond until Sun 11 Oct, 23:59/ }),
  ).toBeVisible()
  await expect(page.getByRole('group', { name: /^Draft essays: / })).toBeVisible()
  await page.getByRole('button', { name: /^Week 11,/ }).click()
  await expect(page.getByText('week 11: three activities')).toBeVisible()
  await expect(page.getByRole('group', { name: /^Draft essays: / })).toHaveCount(0)
  const student = await as('liv')
  await open(student, `/seminars/${world.seminar.id}/plan`)
  await expect(student.getByText('Should the harbour board dredge?')).toBeVisible()
  await expect(student.getByText('Draft essays')).toHaveCount(0)
  await expect(student.getByText(/ready to mark/)).toHaveCount(0)
})

test('a phone shows every student page without sideways scrolling, in the dark too', async ({
  as,
  world,
}) => {
  const page = await as('liv', { width: 390, height: 844, dark: true })
  for (const path of [
    'week',
    'feedback',
    `activities/${world.dredge.id}`,
    `activities/${world.breakwater.id}/letter`,
  ]) {
    await open(page, `/seminars/${world.seminar.id}/${path}`)
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390)
  }
  expect(await page.evaluate(() => getComputedStyle(document.body).backgroundColor)).toBe('rgb(24, 27, 26)')
})

test('a page that is not there, or not open, says so and leads back', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/404|403/)
  const page = await as('liv')
  await open(page, `/seminars/${world.seminar.id}/activities/${world.essays.id}`)
  await expect(page.getByRole('heading', { name: 'This page could not be shown' })).toBeVisible()
  await expect(page.getByText('There is nothing at this address, or it is not open to you.')).toBeVisible()
  await page.getByRole('link', { name: 'Back to the start' }).click()
  await expect(page.getByRole('heading', { name: 'Wednesday, 14 October' })).toBeVisible()
})

test('only scripts of this page run', async ({ as, world }) => {
  const page = await as('liv')
  const answer = await page.goto(`/seminars/${world.seminar.id}/week`)
  const policy = answer!.headers()['content-security-policy']!
  expect(policy).toMatch(/script-src 'self' 'nonce-[^']+'/)
  expect(policy).not.toMatch(/script-src[^;]*unsafe/)
  expect(policy).toContain("frame-ancestors 'none'")
})

test('a page that was not loaded before is not left for one the browser makes, and an error of the server is called one', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/ERR_INTERNET_DISCONNECTED|Failed to fetch|dynamically imported|status of 500|MIME/)
  const page = await as('ines')
  const seminar = `/seminars/${world.seminar.id}`
  await open(page, `${seminar}/plan`)
  await page.context().setOffline(true)
  await page.getByRole('link', { name: 'Gradebook' }).click()
  await expect(page.getByText(/this page was not loaded before\. You are where you were/)).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Term plan' })).toBeVisible()
  await page.context().setOffline(false)
  await page.getByRole('link', { name: 'Gradebook' }).click()
  await expect(page.getByRole('grid', { name: 'Gradebook' })).toBeVisible()

  await page.route('**/api/seminars/*/plan', route =>
    route.fulfill({ status: 500, contentType: 'text/html', body: '<h1>Oh</h1>' }),
  )
  await page.getByRole('link', { name: 'Term plan' }).click()
  await expect(page.getByText('Something went wrong on Jovrel’s side. Try again in a moment.')).toBeVisible()
})

test('one chooses how long a notice with an undo stays', async ({ as, world }) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/plan`)
  await page.getByRole('button', { name: /appearance and signing out$/ }).click()
  await page.getByRole('radio', { name: 'until I close them' }).check()
  await page.keyboard.press('Escape')
  await open(page, `/seminars/${world.seminar.id}/plan`)
  await page.getByRole('button', { name: 'under Plan checks' }).click()
  await page.locator('.checks .say', { hasText: 'One entry only' }).getByRole('button').click()
  const notice = page.locator('.v-snackbar', { hasText: 'Done in “Letters home”.' })
  await notice.getByRole('button', { name: 'Close' }).click()
  await expect(notice).toBeHidden()
})
