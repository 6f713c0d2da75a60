import { Secret, TOTP } from 'otpauth'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { Client, testServer } from '#server/testing/server'
import { email, testWorld, type World } from '#server/testing/world'
import type { SecondFactorSecret, SecondFactorView } from '#shared/people/secondFactor'

const FACTOR = '/api/account/second-factor'
const HALF_MINUTE = 30_000

let world: World
beforeAll(async () => {
  world = await testWorld({ minutes: false })
})
afterAll(() => world.close())

/** The code an app shows now, or so many half minutes later. */
const codeOf = (secret: string, later = 0) =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() + later * HALF_MINUTE })

async function turnOn(client: Client) {
  const { body: begun } = await client.json<SecondFactorSecret>('POST', FACTOR, { password: 'harbour' })
  const { status, body } = await client.json<{ codes: string[] }>('PUT', FACTOR, {
    code: codeOf(begun.secret),
  })
  expect(status).toBe(200)
  return { secret: begun.secret, codes: body.codes, begun }
}

/** Signs in by password, in a browser of its own. @returns shows the code, or null if none is asked for */
async function byPassword(who: string) {
  const browser = new Client(world.address)
  const answer = await browser.send('POST', '/api/session', { email: email(who), password: 'harbour' })
  const body = (await answer.json()) as { session: object | null; needsCode: boolean }
  if (!body.needsCode) return null
  expect(body.session).toBeNull()
  const cookies = answer.headers.getSetCookie().map(c => c.split(';')[0]!)
  expect(cookies.some(c => c.startsWith('jovrel_session='))).toBe(false)
  return (code: string) => browser.send('POST', '/api/session/code', { code }, { cookie: cookies.join('; ') })
}

describe('a second step when signing in', () => {
  it('counts once its app has shown a code, and asks for one after the password', async () => {
    const liv = await world.as('liv')
    const other = await world.as('liv')
    expect((await liv.json('POST', FACTOR, { password: 'wrong' })).status).toBe(422)
    const begun = (await liv.json<SecondFactorSecret>('POST', FACTOR, { password: 'harbour' })).body
    expect(begun.address).toMatch(/^otpauth:\/\/totp\/Jovrel:.*secret=/)
    expect(begun.qr).toContain('<svg')
    expect(await byPassword('liv')).toBeNull() // nothing is asked yet
    expect((await liv.send('PUT', FACTOR, { code: '000000' })).status).toBe(422)
    const { secret, codes } = await turnOn(liv)
    expect(codes).toHaveLength(10)
    expect((await other.send('GET', '/api/account')).status).toBe(401) // other browsers are signed out
    expect((await liv.json<SecondFactorView>('GET', FACTOR)).body).toMatchObject({
      isOn: true,
      codesLeft: 10,
    })

    const show = (await byPassword('liv'))!
    expect((await show('000000')).status).toBe(401)
    const next = codeOf(secret, 1)
    const [first, second] = await Promise.all([show(next), show(next)])
    expect([first!.status, second!.status].sort()).toEqual([200, 401]) // a code is taken once
    const again = (await byPassword('liv'))!
    expect((await again(next)).status).toBe(401)
    expect((await again(codes[0]!.toLowerCase())).status).toBe(200)
    expect((await (await byPassword('liv'))!(codes[0]!)).status).toBe(401) // and so is one on paper
    expect((await liv.json<SecondFactorView>('GET', FACTOR)).body.codesLeft).toBe(9)
    const logged = await world.db.select({ act: t.accessLog.act, done: t.accessLog.done }).from(t.accessLog)
    expect(logged).toContainEqual({ act: 'codeAsked', done: true })
    expect(logged).toContainEqual({ act: 'signInByCode', done: false })
    const [stored] = await world.db.select().from(t.recoveryCodes)
    expect(codes.map(c => c.replace('-', ''))).not.toContain(stored!.digest)
  })

  it('is not guessed: of many codes at once ten are looked at, whatever password follows', async () => {
    const { codes } = await turnOn(await world.as('solongo'))
    const show = (await byPassword('solongo'))!
    const answers = await Promise.all(
      Array.from({ length: 60 }, (_, n) => show(String(100_000 + n)).then(a => a.status)),
    )
    expect(answers.filter(s => s === 401)).toHaveLength(10)
    expect(answers.filter(s => s === 429)).toHaveLength(50)
    const again = (await byPassword('solongo'))!
    expect((await again(codes[0]!)).status).toBe(429)
  })

  it('is asked for in the browser that knew the password alone, and not got round by a link in a mailbox', async () => {
    const { codes } = await turnOn(await world.as('rasmus'))
    expect(
      (await new Client(world.address).send('POST', '/api/session/code', { code: codes[0] })).status,
    ).toBe(401)
    await new Client(world.address).send('POST', '/api/password', { email: email('rasmus') })
    const mails = await world.db
      .select()
      .from(t.mails)
      .where(eq(t.mails.to, email('rasmus')))
    const link = mails.flatMap(m => /\/password\/\S+/.exec(m.text) ?? []).at(-1)!
    const chosen = await new Client(world.address).send('POST', `/api${link}`, {
      password: 'lanterns along the mole',
    })
    expect(chosen.status).toBe(200)
    expect(chosen.headers.getSetCookie().some(c => c.startsWith('jovrel_session='))).toBe(false)
  })

  it('is turned off with the password, and told of by mail', async () => {
    const paz = await world.as('paz')
    await turnOn(paz)
    expect((await paz.send('POST', `${FACTOR}/end`, { password: 'wrong' })).status).toBe(422)
    expect((await paz.json('POST', `${FACTOR}/end`, { password: 'harbour' })).body).toMatchObject({
      isOn: false,
      codesLeft: 0,
    })
    expect(await byPassword('paz')).toBeNull()
    const mails = await world.db
      .select()
      .from(t.mails)
      .where(eq(t.mails.to, email('paz')))
    expect(mails.map(m => m.subject)).toEqual(
      expect.arrayContaining([expect.stringContaining('is on'), expect.stringContaining('is off')]),
    )
  })

  it('can be demanded of staff: their seminars open once it is set up; students are not asked', async () => {
    const server = await testServer(world.databaseUrl, { JOVREL_STAFF_SECOND_FACTOR: 'required' })
    try {
      const seminar = `/api/seminars/${world.seminar.id}`
      const ines = await new Client(server.address).signIn(email('ines'))
      const refused = await ines.json<{ code: string }>('GET', seminar)
      expect([refused.status, refused.body.code]).toEqual([403, 'secondFactor'])
      expect((await ines.send('GET', `/api/activities/${world.breakwater.id}/desk`)).status).toBe(403)
      const student = await new Client(server.address).signIn(email('malin'))
      expect((await student.send('GET', seminar)).status).toBe(200)
      await turnOn(ines)
      expect((await ines.send('GET', seminar)).status).toBe(200)
      expect((await ines.send('POST', `${FACTOR}/end`, { password: 'harbour' })).status).toBe(409)
    } finally {
      await server.stop()
    }
  })
})
