import { and, eq } from 'drizzle-orm'
import * as t from '#server/database/schema'
import type { World } from '#server/testing/world'
import { expect, open, sentence, test } from './fixtures'

async function pageOf(world: World, title: string) {
  const [row] = await world.db.select().from(t.activities).where(eq(t.activities.title, title))
  return { id: row!.id, path: `/seminars/${world.seminar.id}/activities/${row!.id}` }
}

test("a student answers this week's prompt in the notebook, staff answer under it, and the talk goes on", async ({
  as,
  world,
}) => {
  const notebook = await pageOf(world, 'Harbour notebook')
  const liv = await as('liv')
  await open(liv, notebook.path)
  await expect(
    liv.getByText('Between you and staff, except for entries you open to the class.'),
  ).toBeVisible()
  const box = liv.getByRole('textbox', { name: 'Your answer to 5' })
  await box.click()
  await liv.keyboard.insertText(`The third hand is large and slow. ${sentence(80)}`)
  await expect(liv.getByText('87 of 80 words')).toBeVisible()
  await liv.getByRole('button', { name: /^Post/ }).click()
  await expect(box).toHaveCount(0)
  await expect(liv.locator('[data-check]')).toContainText('5 of 11')
  const ines = await as('ines')
  await open(ines, notebook.path)
  await ines.getByRole('button', { name: /^Liv Brandt/ }).click()
  const entry = ines.locator('.entry').filter({ hasText: 'The third hand is large and slow' })
  await entry.getByRole('button', { name: 'answer' }).click()
  await ines.getByRole('textbox', { name: 'Your answer to Liv' }).click()
  await ines.keyboard.insertText('Large how? Against which other?')
  await ines.keyboard.press('Control+Enter')
  // it arrives while Liv has the page open
  await expect(liv.getByText('Large how? Against which other?')).toBeVisible()
  // and j turns to the next person
  await ines.locator('main').click({ position: { x: 5, y: 5 } })
  await ines.keyboard.press('j')
  await expect(ines.getByText('Whom would you ask').first()).toBeVisible()
})

test('an entry is opened to the class only after a warning, and closed again', async ({ as, world }) => {
  const notebook = await pageOf(world, 'Harbour notebook')
  const anselm = await as('anselm')
  await open(anselm, notebook.path)
  await anselm.getByRole('button', { name: 'open it to the class …' }).click()
  await expect(anselm.getByText('with all that you and staff have written under it')).toBeVisible()
  await anselm.getByRole('button', { name: 'Open it', exact: true }).click()
  const kadri = await as('kadri')
  await open(kadri, notebook.path)
  await kadri.getByRole('button', { name: /Anselm Moreau-Sato/ }).click()
  await expect(kadri.getByText('the boy who held the other end of the measuring rope')).toBeVisible()
  await anselm.getByRole('button', { name: 'close it to the class' }).click()
  await expect(anselm.getByRole('status').filter({ hasText: 'Between you and staff again' })).toBeVisible()
  await open(kadri, notebook.path)
  await expect(kadri.getByText('the boy who held the other end of the measuring rope')).toHaveCount(0)
})

test('a blog entry is begun, put away, taken up again with its title, posted and commented on', async ({
  as,
  world,
}) => {
  const quay = await pageOf(world, 'Letters from the quay')
  const liv = await as('liv')
  await open(liv, quay.path)
  await liv.getByRole('button', { name: /^Write an entry/ }).click()
  await liv.getByRole('textbox', { name: 'Title' }).fill('Round stones')
  await liv.getByRole('textbox', { name: 'Your entry' }).click()
  await liv.keyboard.insertText('My mother sent a photograph of the wall.')
  await expect(liv.locator('.box .state')).toHaveText('saved as draft')
  await liv.getByRole('button', { name: 'Close' }).click()
  await expect(liv.getByText('in draft, 8 words')).toBeVisible()
  await open(liv, quay.path)
  await liv.getByRole('button', { name: 'go on writing' }).click()
  await expect(liv.getByRole('textbox', { name: 'Title' })).toHaveValue('Round stones')
  await liv.getByRole('textbox', { name: 'Your entry' }).click()
  await liv.keyboard.press('Control+End')
  await liv.keyboard.insertText(` ${sentence(60)}`)
  await liv.keyboard.press('Control+Enter')
  await expect(liv.getByRole('heading', { name: 'Round stones' })).toBeVisible()
  const kadri = await as('kadri')
  await open(kadri, quay.path)
  const entry = kadri.locator('.entry').filter({ hasText: 'Round stones' })
  await entry.getByRole('button', { name: 'comment' }).click()
  await kadri.getByRole('textbox', { name: 'Your comment to Liv' }).click()
  await kadri.keyboard.insertText('Ballast!')
  await kadri.keyboard.press('Control+Enter')
  await expect(liv.getByText('Ballast!')).toBeVisible()
  await expect(kadri.getByRole('status').filter({ hasText: 'Posted.' })).toBeVisible() // her own page has come to it
  // one person's entries, and who has none
  await kadri.getByRole('button', { name: /^Nico Corvo/ }).click()
  await expect(kadri.getByRole('heading', { name: 'Round stones' })).toHaveCount(0)
  await expect(kadri.getByRole('heading', { name: 'A gull with a system' })).toBeVisible()
  await expect(kadri.getByText(/have none yet: .*Jonas/)).toBeVisible()
})

test('exit notes are marked in one list with two keys, each mark can be taken back, and a word written to one', async ({
  as,
  world,
}) => {
  const stair = await pageOf(world, 'The stair at noon')
  const ines = await as('ines')
  await open(ines, stair.path)
  await expect(ines.getByText('answers are in, eleven to mark')).toBeVisible()
  await ines.keyboard.press('d')
  await expect(ines.getByText('answers are in, ten to mark')).toBeVisible()
  await ines.keyboard.press('x')
  await expect(ines.getByText('answers are in, nine to mark')).toBeVisible()
  await expect(ines.getByRole('status').filter({ hasText: ': not done.' })).toBeVisible()
  await ines.getByRole('button', { name: 'Undo' }).click()
  await expect(ines.getByText('answers are in, ten to mark')).toBeVisible()
  // a word to one of them, from the list
  await ines.locator('li[data-answer]').first().focus()
  await ines.keyboard.press('w')
  await ines.getByRole('textbox', { name: 'Your word to Liv' }).fill('That is the stair I meant.')
  await ines.keyboard.press('Control+Enter')
  await expect(ines.locator('.words .said').getByText('That is the stair I meant.')).toBeVisible()
  const liv = await as('liv')
  await open(liv, stair.path)
  await expect(liv.getByText('Marked as done.')).toBeVisible()
  await expect(liv.getByText('That is the stair I meant.')).toBeVisible()
  const rows = await world.db.select().from(t.contributionMarks)
  expect(rows.map(r => r.done)).toEqual([true])
})

test('keys pressed faster than the server answers mark the answers they were meant for', async ({
  as,
  world,
}) => {
  const stair = await pageOf(world, 'The stair at noon')
  const ines = await as('ines')
  await ines.route('**/mark', async route => {
    await route.fetch().then(response => route.fulfill({ response }))
  })
  await open(ines, stair.path)
  const names = ines.locator('li[data-answer] .who b')
  await expect(names).toHaveCount(11)
  const meant = await names.allTextContents()
  for (const key of ['d', 'x', 'd', 'd', 'x']) await ines.keyboard.press(key)
  await expect(ines.getByText('answers are in, six to mark')).toBeVisible()
  await expect(ines.getByRole('status').filter({ hasText: `${meant[4]}: not done.` })).toBeVisible()
  const rows = await world.db
    .select({ name: t.persons.name, done: t.contributionMarks.done })
    .from(t.contributionMarks)
    .innerJoin(t.contributions, eq(t.contributions.id, t.contributionMarks.contributionId))
    .innerJoin(t.enrolments, eq(t.enrolments.id, t.contributions.authorId))
    .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
  expect(new Map(rows.map(r => [r.name, r.done]))).toEqual(
    new Map([true, false, true, true, false].map((done, i) => [meant[i], done])),
  )
})

test('a post of another arrives without moving what is being read', async ({ as, world }) => {
  const liv = await as('liv')
  await open(liv, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  const post = liv.locator('article[id^="c-"]').filter({ hasText: 'I speak for the clerk of the board' })
  await post.scrollIntoViewIfNeeded()
  const before = (await post.boundingBox())!.y
  const nico = await world.as('nico')
  const target = await world.contribution('rasmus', world.dredge.id) // its thread is above what is being read
  await nico.send('POST', `/api/activities/${world.dredge.id}/contributions`, {
    key: crypto.randomUUID(),
    parentId: target.id,
    doc: {
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Weevils are cargo, too.' }] }],
    },
  })
  const arrived = liv.getByRole('status').filter({ hasText: 'Nico answered Rasmus just now.' })
  await expect(arrived).toBeVisible()
  expect(Math.abs((await post.boundingBox())!.y - before)).toBeLessThan(3)
  await arrived.getByRole('button', { name: /Read it/ }).click()
  await expect(liv.locator('article').filter({ hasText: 'Weevils are cargo, too.' })).toBeFocused()
})

test('what is written without a connection is posted once when there is one', async ({
  as,
  world,
  expectedErrors,
}) => {
  expectedErrors.push(/ERR_INTERNET_DISCONNECTED|Failed to (load|fetch)/)
  const paz = await as('paz')
  await open(paz, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  await paz.getByRole('textbox', { name: 'Your opening post' }).click()
  await paz.context().setOffline(true)
  await paz.keyboard.insertText('Written on a boat without a signal.')
  await paz.keyboard.press('Control+Enter')
  await expect(paz.getByText('no connection: it is posted as soon as there is one')).toBeVisible()
  await paz.context().setOffline(false)
  await expect(paz.getByText('I speak for the grain shippers')).toBeVisible()
  const mine = await world.enrolment('paz')
  const rows = await world.db
    .select()
    .from(t.contributions)
    .where(and(eq(t.contributions.authorId, mine.id), eq(t.contributions.activityId, world.dredge.id)))
  expect(rows.map(r => [r.state, r.text])).toEqual([['shown', 'Written on a boat without a signal.']])
})

test('a picture comes with a post and is shown in place; a post is changed in place, and staff see what it said', async ({
  as,
  world,
}) => {
  const liv = await as('liv')
  await open(liv, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  const rasmus = liv.locator('article').filter({ hasText: 'I speak for the grain shippers' })
  await rasmus.getByRole('button', { name: 'reply' }).click()
  await liv.getByRole('textbox', { name: 'Your reply to Rasmus' }).click()
  await liv.keyboard.insertText('Here is the strand as I see it.')
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  )
  await liv
    .locator('.writing input[type=file][multiple]') // beside the text, not in it
    .setInputFiles({ name: 'strand.png', mimeType: 'image/png', buffer: png })
  await expect(liv.locator('.writing').getByText('strand.png')).toBeVisible()
  await liv.getByRole('button', { name: /^Post/ }).click()
  const mine = liv.locator('article').filter({ hasText: 'Here is the strand as I see it.' })
  await expect(mine.getByRole('img', { name: 'strand' })).toBeVisible()
  await mine.getByRole('button', { name: 'change' }).click()
  await liv.getByRole('textbox', { name: 'Your text' }).click()
  await liv.keyboard.press('Control+End')
  await liv.keyboard.insertText(' Low water.')
  await liv.keyboard.press('Control+Enter')
  await expect(mine).toContainText('as I see it. Low water.')
  const ines = await as('ines')
  await open(ines, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  const seen = ines.locator('article').filter({ hasText: 'as I see it. Low water.' })
  await seen.getByRole('button', { name: 'what it said' }).click()
  await expect(seen.locator('.revisions')).toContainText('Here is the strand as I see it.')
  await seen.getByRole('button', { name: 'withdraw' }).click()
  await expect(mine).toContainText('withdrawn, only you and staff see it') // on her open page, too
  await expect(mine.getByRole('button', { name: 'restore' })).toHaveCount(0)
})

test('discussion topics of a cartridge become drafts on the term plan', async ({ as, world }) => {
  const ines = await as('ines')
  await open(ines, `/seminars/${world.seminar.id}/plan`)
  await ines.getByRole('button', { name: 'Plan an activity' }).click()
  const topic =
    '<?xml version="1.0" encoding="UTF-8"?><topic xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imsdt_v1p3"><title>Who may anchor?</title><text texttype="text/html">&lt;p&gt;Take the oath of 1588. &lt;b&gt;Who may anchor&lt;/b&gt;, and who is asked?&lt;/p&gt;&lt;script&gt;window.hit=1&lt;/script&gt;</text></topic>'
  await ines
    .locator('.new input[type=file]')
    .setInputFiles({ name: 'topic.xml', mimeType: 'text/xml', buffer: Buffer.from(topic) })
  await expect(
    ines.getByRole('status').filter({ hasText: 'One discussion is planned as a draft.' }),
  ).toBeVisible()
  const [made] = await world.db.select().from(t.activities).where(eq(t.activities.title, 'Who may anchor?'))
  expect([made!.state, made!.kind, made!.briefHtml]).toEqual([
    'draft',
    'discussion',
    '<p>Take the oath of 1588. <strong>Who may anchor</strong>, and who is asked?</p>',
  ])
  await ines.getByRole('button', { name: 'Plan an activity' }).click()
  await ines
    .locator('.new input[type=file]')
    .setInputFiles({ name: 'letter.xml', mimeType: 'text/xml', buffer: Buffer.from('<letter/>') })
  await expect(ines.getByText('There is no discussion topic in “letter.xml”.')).toBeVisible()
})

test('speech is recorded in the browser, heard before it is posted, and comes with the post', async ({
  as,
  world,
}) => {
  const liv = await as('liv')
  await liv.context().grantPermissions(['microphone'])
  await open(liv, `/seminars/${world.seminar.id}/activities/${world.dredge.id}`)
  await liv
    .locator('article')
    .filter({ hasText: 'I speak for the grain shippers' })
    .getByRole('button', { name: 'reply' })
    .click()
  await liv.getByRole('textbox', { name: 'Your reply to Rasmus' }).click()
  await liv.keyboard.insertText('Hear it as the pilots say it.')
  await liv.locator('.writing').getByRole('button', { name: 'Speak' }).click()
  await expect(liv.getByText('recording, 0:01')).toBeVisible()
  await liv.getByRole('button', { name: 'Stop and save' }).click()
  await expect(liv.locator('.writing audio')).toHaveCount(1)
  await liv.getByRole('button', { name: /^Post/ }).click()
  const mine = liv.locator('article').filter({ hasText: 'Hear it as the pilots say it.' })
  await expect(mine.locator('audio')).toHaveCount(1)
  const [file] = await world.db
    .select({ type: t.files.type, size: t.files.size })
    .from(t.files)
    .where(eq(t.files.type, 'audio/webm'))
  expect(file!.size).toBeGreaterThan(500)
})

test("questions that staff put are answered one by one; nothing is said of others' answers before", async ({
  as,
  world,
}) => {
  const ines = await world.as('ines')
  const id = crypto.randomUUID()
  await ines.send('POST', `/api/seminars/${world.seminar.id}/activities`, {
    id,
    kind: 'discussion',
    week: 6,
    unitId: null,
    templateId: null,
  })
  const view = async () => (await ines.json<{ version: number }>('GET', `/api/activities/${id}/plan`)).body
  await ines.send('PATCH', `/api/activities/${id}/plan`, {
    key: crypto.randomUUID(),
    baseVersion: (await view()).version,
    tell: false,
    change: {
      title: 'The oath',
      threads: 'staff',
      writeFirst: true,
      rules: [
        {
          id: crypto.randomUUID(),
          rule: { kind: 'prompts', need: 1, minWords: 5, due: 'write' },
          needed: true,
        },
      ],
    },
  })
  await ines.send('POST', `/api/activities/${id}/publish`, {
    key: crypto.randomUUID(),
    baseVersion: (await view()).version,
    opens: 'now',
    tell: false,
  })
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/activities/${id}`)
  for (const question of ['Who swears, and before whom?', 'Who is harmed when it is kept?']) {
    await page.getByRole('button', { name: 'ask a question' }).click()
    await page.getByRole('textbox', { name: 'A question for all' }).click()
    await page.keyboard.insertText(question)
    await page.keyboard.press('Control+Enter')
    await expect(page.locator('article').filter({ hasText: question })).toBeVisible()
  }
  const kadri = await world.as('kadri')
  const questions = (
    await kadri.json<{ contributions: Array<{ id: string }> }>('GET', `/api/activities/${id}/contributions`)
  ).body.contributions
  await kadri.send('POST', `/api/activities/${id}/contributions`, {
    key: crypto.randomUUID(),
    parentId: questions[0]!.id,
    doc: {
      type: 'doc',
      content: [
        { type: 'paragraph', content: [{ type: 'text', text: 'The pilots, before the town book.' }] },
      ],
    },
  })
  const liv = await as('liv')
  await open(liv, `/seminars/${world.seminar.id}/activities/${id}`)
  await expect(liv.getByText('Two questions to answer.')).toBeVisible()
  await expect(liv.getByText('the others’ answers appear once yours is in')).toHaveCount(2)
  await expect(liv.getByText(/no answer yet|before the town book/)).toHaveCount(0)
  await liv.getByRole('button', { name: 'answer question 1' }).click()
  await liv.getByRole('textbox', { name: 'Your reply to Ines' }).click()
  await liv.keyboard.insertText('Those who cannot see the window.')
  await expect(liv.getByText('6 of 5 words')).toBeVisible()
  await liv.keyboard.press('Control+Enter')
  await expect(liv.getByText('The pilots, before the town book.')).toBeVisible()
  await expect(liv.getByText('One question to answer.')).toBeVisible()
  await expect(liv.locator('[data-check]')).toContainText('1 of 2')
})
