import { v7 } from 'uuid'
import type { Page } from '@playwright/test'
import { SETUP_CODE } from '#server/testing/server'
import { bare as test, expect, open } from './fixtures'

// The story of a new user, from an empty installation to a student's calendar, in three parts.
test('an instructor makes the first account, founds a seminar, brings its people in and makes groups', async ({
  empty,
}) => {
  const page = await empty.page()
  await open(page, '/')
  await expect(page.getByRole('heading', { name: 'Make the first account' })).toBeVisible()
  await page.getByRole('button', { name: 'Make the account' }).click()
  await expect(page.getByText('Write the first name.')).toBeVisible()
  await page.getByLabel('First name').fill('Inga')
  await page.getByLabel('Family name').fill('Founder')
  await page.getByLabel('E-mail').fill('inga@northmere.example')
  await page.getByLabel('Password').fill('a long password')
  await page.getByLabel('Code from the console').fill('wrong code')
  await page.getByRole('button', { name: 'Make the account' }).click()
  await expect(page.getByText('This is not the code.')).toBeVisible()
  await page.getByLabel('Code from the console').fill(SETUP_CODE.toLowerCase())
  await page.getByRole('button', { name: 'Make the account' }).click()

  await expect(page.getByRole('heading', { name: 'Set up a seminar' })).toBeVisible()
  await page.getByLabel('Title').fill('Nets and Quays')
  await page.getByLabel('Short code').fill('NQ 1')
  await page.getByLabel('First Monday', { exact: true }).fill('14 Oct 2026') // a Wednesday: it is moved to its Monday
  await page.keyboard.press('Tab')
  await expect(page.getByLabel('First Monday', { exact: true })).toHaveValue(/^Mon 12 Oct/)
  await page.getByRole('button', { name: /Week from 2 Nov/ }).click()
  await page.getByLabel('What this break is called').fill('Reading week')
  await page.getByRole('button', { name: 'Set it up' }).click()

  // people: what is wrong is named before anything is written
  await page.getByRole('button', { name: 'Import a roster' }).click()
  await page.locator('input[type=file]').setInputFiles({
    name: 'roster.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'Name;Kontakt;Section\nLiv Brandt;liv@x.example;A\nNico Corvo;nico@x.example;B\nKadri Ilves;kadri@x.example;A\nOona Rintala;oona@x.example;B\n;nobody@x.example;A\n',
    ),
  })
  // a heading nobody knows: what stands below it is said here
  await page.getByLabel('Kontakt').selectOption('e-mail')
  await expect(page.getByText('Four would be added.')).toBeVisible()
  await expect(page.getByText('line 6')).toBeVisible()
  await expect(page.getByText('There is no name.')).toBeVisible()
  await page.getByRole('button', { name: 'Import 4 changes' }).click()
  await expect(page.getByText('4 added, 1 row passed over.')).toBeVisible()
  await expect(page.getByText('4 students: 2 in A, 2 in B')).toBeVisible()
  await page.getByRole('button', { name: 'Make a code' }).click()
  const code = page.locator('.codes .code').first()
  await expect(code).toHaveText(/^\S{4,}/)
  await page.getByRole('button', { name: 'Show it large' }).click()
  const shown = page.getByRole('dialog', { name: 'Join the seminar' })
  const address = `${new URL(empty.address).host}/join/${await code.textContent()}`
  await expect(shown.getByText(address, { exact: true })).toBeVisible()
  await expect(shown.getByRole('img', { name: `Opens ${address}` })).toBeVisible()
  await shown.getByRole('button', { name: 'Close' }).click()

  // groups with topics
  await page.getByRole('link', { name: 'Groups', exact: true }).click()
  await page.getByLabel('What the plan is for').fill('Debate')
  await page.getByLabel('Fewest people in a group').fill('2')
  await page.getByLabel('Most people in a group').fill('2')
  await page.getByLabel('Topics, one a line').fill('Dredge\nQuay')
  await page.getByRole('button', { name: 'Make the groups' }).click()
  await expect(page.getByLabel('Name of Dredge')).toBeVisible()
  await expect(page.locator('[data-group="Dredge"] li')).toHaveCount(2)
  // two who are to be kept apart stay so in sight, also when somebody is moved
  await page.getByText('Keep people together or apart').click()
  await page.getByLabel('Keep apart: a new set').selectOption('Liv Brandt')
  await page.getByLabel('Keep apart: add somebody to set 1').selectOption('Oona Rintala')
  await expect(page.locator('summary')).toHaveText(/^one rule, /)
  for (const name of ['Liv Brandt', 'Oona Rintala'])
    await page.getByLabel(`Move ${name}`, { exact: true }).selectOption('Quay')
  const unkept = 'Liv Brandt and Oona Rintala are to be kept apart, and are in one group.'
  await expect(page.getByText(`Oona is in Quay now. ${unkept}`)).toBeVisible()
  await expect(page.locator('summary')).toHaveText('one rule, one not kept')
  await page.getByLabel('Move Liv Brandt', { exact: true }).selectOption('Dredge')
  await expect(page.locator('summary')).toHaveText('one rule, all kept')
})

test('in a new seminar three activities are planned, one is published, changed and copied', async ({
  empty,
}) => {
  const page = await empty.page()
  const { seminarId } = await found(page, empty.address)
  await open(page, `/seminars/${seminarId}/plan`)
  const plan = async (kind: string) => {
    await page.getByRole('link', { name: 'Term plan' }).click()
    await page.getByRole('button', { name: 'Plan an activity' }).click()
    await page
      .getByRole('dialog', { name: 'Plan an activity' })
      .getByRole('button', { name: new RegExp(`^${kind}`) })
      .click()
    await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible()
  }
  for (const [kind, title] of [
    ['Journal', 'Notebook'],
    ['Blog', 'Letters'],
    ['Discussion', 'Who mends the nets?'],
  ] as const) {
    await plan(kind)
    await page.getByRole('textbox', { name: 'Title' }).fill(title)
    await page
      .getByRole('textbox', { name: 'Brief' })
      .fill('Who mends the nets, and who says so? Rest your answer on one line of the register.')
    await expect(page.locator('.preview h3')).toHaveText(title) // the preview follows
    await expect(page.getByText('saved', { exact: true })).toBeVisible()
  }
  // a sentence is changed where it stands; its line lights up in the preview
  await page.getByRole('button', { name: /How many classmates: 2/ }).click()
  await expect(page.locator('.preview li.lit')).toContainText('replies to 2 different classmates', {
    ignoreCase: true,
  })
  await page.getByRole('spinbutton', { name: 'How many classmates' }).fill('1')
  await page.keyboard.press('Enter')
  await expect(page.locator('.preview')).toContainText('to 1 different classmate')
  await page.getByRole('button', { name: 'on publishing' }).click()
  await page.getByRole('button', { name: 'Publish and tell students' }).click()
  await expect(page.getByText(/Published, and four students are told/)).toBeVisible()

  // changed after publishing: the effect first
  await page.getByRole('button', { name: /At least so many words: 200/ }).click()
  await page.getByRole('spinbutton', { name: 'At least so many words' }).fill('120')
  await page.keyboard.press('Escape')
  await expect(page.getByText('Nobody’s standing would change.')).toBeVisible()
  await page.getByRole('button', { name: 'Save changes', exact: true }).click()
  await expect(page.getByText('Changed.')).toBeVisible()
  await page.getByRole('button', { name: 'Copy it' }).click()
  await page.getByLabel('Week', { exact: true }).selectOption({ label: 'week 3' })
  await page.getByRole('button', { name: 'Make the copy' }).click()
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Who mends the nets? (copy)')
  await page.getByRole('link', { name: 'Term plan' }).click()
  await expect(page.getByText('4 activities, three of them drafts')).toBeVisible()
})

test('a student joins by a code with an account of their own, is told, and finds the work in the week and the calendar', async ({
  empty,
  browser,
}) => {
  const page = await empty.page()
  const { seminarId, code, send } = await found(page, empty.address)
  const id = v7()
  await send(`/seminars/${seminarId}/activities`, {
    id,
    kind: 'discussion',
    week: 1,
    unitId: null,
    templateId: null,
  })
  const plan = await (await page.request.get(`/api/activities/${id}/plan`)).json()
  const change = { title: 'Who mends the nets?' }
  await send(`/activities/${id}/plan`, { key: v7(), baseVersion: plan.version, change, tell: false }, 'PATCH')
  await send(`/activities/${id}/publish`, {
    key: v7(),
    baseVersion: plan.version + 1,
    opens: 'now',
    tell: true,
  })
  // a student joins by code, with an account of their own
  const theirs = await browser.newContext({ baseURL: empty.address })
  const student = await theirs.newPage()
  await open(student, '/join')
  await student.getByLabel('Joining code').fill(code.toLowerCase())
  await student.getByRole('button', { name: 'Go on' }).click()
  await expect(student.getByRole('heading', { name: 'Nets and Quays' })).toBeVisible()
  for (const [label, value] of [
    ['First name', 'Petra'],
    ['Family name', 'Lindqvist'],
    ['E-mail', 'petra@x.example'],
    ['Password', 'petras password'],
  ] as const)
    await student.getByLabel(label).fill(value)
  await student.getByRole('button', { name: 'Join the seminar' }).click()
  await expect(student.getByText('Who mends the nets?')).toBeVisible()
  await expect(student.getByText('the opening post, two replies to go')).toBeVisible()

  // what the class was told is in the mailroom; the calendar has the due time
  await open(page, '/mailroom')
  await expect(page.getByText('Nets and Quays: “Who mends the nets?” is open.').first()).toBeVisible()
  await open(student, '/account')
  await student.getByRole('button', { name: 'Make a calendar address' }).click()
  const feed = await theirs.request.get(await student.getByLabel('Calendar address').inputValue())
  expect(await feed.text()).toContain('Who mends the nets?: writing ends')
  await theirs.close()
})

/** A seminar with four students and a joining code, made through the routes by its signed-in founder. */
async function found(page: Page, address: string) {
  const send = async (path: string, data: object, method = 'POST') => {
    const answer = await page.request.fetch(`/api${path}`, { method, data, headers: { origin: address } })
    expect(answer.ok(), await answer.text()).toBe(true)
    return answer
  }
  const founder = { email: 'inga@northmere.example', password: 'a long password' }
  await send('/account', { ...founder, code: SETUP_CODE, givenName: 'Inga', familyName: 'Founder' })
  await send('/session', founder)
  const seminarId = v7()
  await send('/seminars', {
    id: seminarId,
    code: 'NQ 1',
    title: 'Nets and Quays',
    college: '',
    timeZone: 'Europe/Amsterdam',
    firstDay: '2026-10-12',
    weeks: 13,
    breaks: [{ week: 4, title: 'Reading week' }],
  })
  const names = ['Liv Brandt', 'Nico Corvo', 'Kadri Ilves', 'Oona Rintala']
  const roster = `name;e-mail\n${names.map(n => `${n};${n.split(' ')[0]!.toLowerCase()}@x.example`).join('\n')}`
  const base = `/seminars/${seminarId}`
  await send(`${base}/roster`, {
    key: v7(),
    name: 'roster.csv',
    base64: Buffer.from(roster).toString('base64'),
    withdrawMissing: false,
    invite: false,
  })
  await send(`${base}/codes`, { key: v7(), role: 'student', sectionId: null, days: 14, most: 30 })
  const people = await (await page.request.get(`/api${base}/people`)).json()
  return { seminarId, code: people.codes[0].code as string, send }
}
