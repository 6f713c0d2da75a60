import { and, desc, eq } from 'drizzle-orm'
import { Secret, TOTP } from 'otpauth'
import * as t from '#server/database/schema'
import { people } from '#demo/people'
import { email, type World } from '#server/testing/world'
import { expect, open, signIn, test } from './fixtures'

const newestMail = async (world: World, to: string) => {
  const [mail] = await world.db.select().from(t.mails).where(eq(t.mails.to, to)).orderBy(desc(t.mails.madeAt))
  return mail?.text ?? ''
}

test('one changes name, password and address, and signs the other browser out', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/status of 422/)
  const page = await as('liv')
  await as('liv') // signed in in another browser, too
  await open(page, '/account')

  await page.getByLabel('First name').fill('Livia')
  await page.getByRole('button', { name: 'Save the name' }).click()
  await expect(page.getByRole('heading', { name: 'Livia Brandt' })).toBeVisible()

  await page.getByRole('button', { name: 'Change the password' }).click()
  await page.getByLabel('Your present password').fill('harbour')
  await page.getByLabel('New password').fill('password12')
  await page.getByRole('button', { name: 'Save the password' }).click()
  await expect(page.getByText('Many people choose this password')).toBeVisible()
  await expect(page.getByLabel('Your present password')).toHaveValue('harbour') // nothing typed is lost
  await expect(page.getByRole('listitem').filter({ hasText: 'on Linux' })).toHaveCount(2)
  await page.getByLabel('New password').fill('lanterns along the mole')
  await page.getByRole('button', { name: 'Save the password' }).click()
  await expect(page.getByText('Every other browser is signed out.')).toBeVisible()
  await expect(page.getByRole('listitem').filter({ hasText: 'on Linux' })).toHaveCount(1)

  await page.getByRole('button', { name: 'Change the address' }).click()
  await page.getByLabel('New address').fill('livia@x.example')
  await page.getByLabel('Your password', { exact: true }).fill('lanterns along the mole')
  await page.getByRole('button', { name: 'Send the link' }).click()
  await expect(page.getByText('A link is on its way to livia@x.example.')).toBeVisible()
  await open(page, /\/address\/\S+/.exec(await newestMail(world, 'livia@x.example'))![0])
  await page.getByRole('button', { name: 'Confirm the address' }).click()
  await expect(page.getByRole('heading', { name: 'Your address is confirmed' })).toBeVisible()
  expect(await newestMail(world, email('liv'))).toContain('from now on: livia@x.example')
})

test('on a shared computer nobody gets another’s unsent words: they wait for their writer', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/ERR_INTERNET_DISCONNECTED|Failed to (load|fetch)/)
  const words = 'Written on a boat, on the library’s laptop.'
  const path = `/seminars/${world.seminar.id}/activities/${world.dredge.id}`
  const paz = await as('paz')
  const laptop = paz.context()
  const enrolments = new Map<string, string>()
  for (const p of people) enrolments.set(p.key, (await world.enrolment(p.key)).id)
  const posted = async () => {
    const rows = await world.db
      .select()
      .from(t.contributions)
      .where(and(eq(t.contributions.text, words), eq(t.contributions.state, 'shown')))
    return rows.map(r => r.authorId)
  }
  await open(paz, path)
  await paz.getByRole('textbox', { name: 'Your opening post' }).click()
  await laptop.setOffline(true)
  await paz.keyboard.insertText(words)
  await paz.keyboard.press('Control+Enter')
  await expect(paz.getByText('no connection: it is posted as soon as there is one')).toBeVisible()
  await paz.close()
  await laptop.setOffline(false)

  const written = await world.db
    .select({ id: t.contributions.authorId })
    .from(t.contributions)
    .where(eq(t.contributions.activityId, world.dredge.id))
  const silent = people.find(
    p => p.role === 'student' && p.key !== 'paz' && !written.some(w => w.id === enrolments.get(p.key)),
  )!
  await signIn(laptop, world.address, silent.key)
  const other = await laptop.newPage()
  await open(other, path)
  await expect(other.getByRole('textbox', { name: 'Your opening post' })).toBeVisible()
  await expect(other.getByText(words)).toHaveCount(0)
  expect(await posted()).toEqual([])
  await other.close()

  await signIn(laptop, world.address, 'paz')
  const back = await laptop.newPage()
  await open(back, path)
  await expect(back.getByText(words).first()).toBeVisible()
  await expect.poll(posted).toEqual([(await world.enrolment('paz')).id])
})

test('a page left open is not used in the name of who signs in in another tab', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/status of 401/)
  const paz = await as('paz')
  const laptop = paz.context()
  await open(paz, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  await signIn(laptop, world.address, 'kadri')
  await paz.getByRole('textbox', { name: 'Your opening post' }).click()
  await paz.keyboard.insertText('Paz wrote this.')
  await paz.keyboard.press('Control+Enter')
  await expect(paz.getByText('Somebody else has signed in in this browser.').first()).toBeVisible()
  expect(await world.db.$count(t.contributions, eq(t.contributions.text, 'Paz wrote this.'))).toBe(0)
  await expect(paz.getByText('Paz wrote this.')).toBeVisible()
})

test('a second step is set up with an app, asked for, and got through by a code on paper', async ({
  as,
  browser,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/status of 401/)
  const page = await as('liv')
  await open(page, '/account')
  await page.getByRole('button', { name: 'Set it up' }).click()
  await page.getByLabel('Your password', { exact: true }).fill('harbour')
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(page.getByRole('img', { name: 'A code to scan with the app' })).toBeVisible()
  const key = (await page.locator('.key').innerText()).replaceAll(' ', '')
  await page
    .getByLabel('The code the app shows')
    .fill(new TOTP({ secret: Secret.fromBase32(key) }).generate())
  await page.getByRole('button', { name: 'Turn it on' }).click()
  await expect(page.getByText('The second step is on.')).toBeVisible()
  const codes = await page.getByRole('list', { name: 'Recovery codes' }).getByRole('listitem').allInnerTexts()
  expect(codes).toHaveLength(10)

  const elsewhere = await (await browser.newContext({ baseURL: world.address })).newPage()
  await open(elsewhere, '/sign-in')
  await elsewhere.getByLabel('E-mail').fill(email('liv'))
  await elsewhere.getByLabel('Password').fill('harbour')
  await elsewhere.getByRole('button', { name: 'Sign in', exact: true }).click()
  await elsewhere.getByLabel('Code from your app').fill('000000')
  await elsewhere.keyboard.press('Enter')
  await expect(elsewhere.getByText('This code does not fit')).toBeVisible()
  await elsewhere.getByLabel('Code from your app').fill(codes[3]!.toLowerCase())
  await elsewhere.keyboard.press('Enter')
  await expect(elsewhere.getByRole('banner')).toContainText('My week')
  await elsewhere.context().close()
})

test('a passkey is added, signs in without a password or beside it, and is removed', async ({
  browser,
  world,
}) => {
  const context = await browser.newContext({ baseURL: world.address.replace('127.0.0.1', 'localhost') })
  const page = await context.newPage()
  const devices = await context.newCDPSession(page)
  await devices.send('WebAuthn.enable')
  const { authenticatorId } = await devices.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
    },
  })
  const signInByPassword = async () => {
    await page.getByLabel('E-mail').fill(email('liv'))
    await page.getByLabel('Password').fill('harbour')
    await page.keyboard.press('Enter')
  }
  await open(page, '/sign-in')
  await signInByPassword()
  await expect(page.getByRole('banner')).toContainText('My week')

  await open(page, '/account')
  await page.getByRole('button', { name: 'Add a passkey' }).click()
  await expect(page.getByLabel('Name of the passkey')).toHaveValue(/ on Linux$/)
  await page.getByLabel('Name of the passkey').fill('The blue laptop')
  await page.getByLabel('Your password', { exact: true }).fill('harbor')
  await page.keyboard.press('Enter')
  await expect(page.getByText('This is not your password.')).toBeVisible()
  await page.getByLabel('Your password', { exact: true }).fill('harbour')
  await page.keyboard.press('Enter')
  await expect(page.getByText('The passkey is added. Every other browser is signed out.')).toBeVisible()
  await expect(page.getByRole('list', { name: 'Recovery codes' }).getByRole('listitem')).toHaveCount(10)
  const keys = page.getByRole('list', { name: 'Your passkeys' })
  await expect(keys).toContainText('The blue laptop not used yet')

  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await page.getByRole('button', { name: 'Use a passkey' }).click()
  await expect(page.getByRole('banner')).toContainText('My week')

  await open(page, '/account')
  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await signInByPassword()
  await page.getByRole('button', { name: 'Use your passkey' }).click()
  await expect(page.getByRole('banner')).toContainText('My week')

  await open(page, '/account')
  await expect(keys).toContainText('last used')
  await page.getByRole('button', { name: 'Remove the passkey The blue laptop' }).click()
  await page.getByLabel('Your password', { exact: true }).fill('harbour')
  await page.getByRole('button', { name: 'Remove the passkey', exact: true }).click()
  await expect(page.getByText('The passkey “The blue laptop” signs you in no more.')).toBeVisible()
  await expect(page.getByText('Whoever learns your password then still cannot sign in.')).toBeVisible()

  await devices.send('WebAuthn.clearCredentials', { authenticatorId })
  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await page.getByRole('button', { name: 'Use a passkey' }).click()
  await expect(page.getByText('No passkey was shown.')).toBeVisible()
  await context.close()
})

test('the owner reads who signed in, and what could not be done by itself; nobody else does', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/403/)
  const at = new Date('2026-10-14T08:00:00Z')
  await world.db.insert(t.dueFailures).values({
    task: 'tellOfMessage',
    subjectId: world.dredge.id,
    seminarId: world.seminar.id,
    reason: 'P0001',
    tries: 3,
    firstAt: at,
    lastAt: at,
    nextAt: new Date(at.getTime() + 8 * 60_000),
  })
  const ines = await as('ines')
  await open(ines, '/access-log')
  const undone = ines.getByRole('region', { name: 'Work that could not be done' })
  await expect(undone.getByRole('row', { name: /tell a student of a message.*P0001 3/ })).toBeVisible()
  await expect(ines.getByRole('row', { name: /Ines Okafor-Lind.*done/ }).first()).toBeVisible()
  const liv = await as('liv')
  await open(liv, '/access-log')
  await expect(liv.getByText('The access log is for the owner of this installation.')).toBeVisible()
})
