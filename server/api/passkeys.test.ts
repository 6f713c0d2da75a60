import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { Client, testServer } from '#server/testing/server'
import { softPasskey } from '#server/testing/softPasskey'
import { email, testWorld, type World } from '#server/testing/world'
import type { SecondFactorView } from '#shared/people/secondFactor'

const KEYS = '/api/account/passkeys'
const PASSWORD = { password: 'harbour' }
type Device = ReturnType<typeof softPasskey>

let world: World
let origin: string
beforeAll(async () => {
  world = await testWorld({ minutes: false })
  origin = world.address.replace('127.0.0.1', 'localhost')
})
afterAll(() => world.close())

/** Sends something as a page opened by the server's name, and reads the answer. */
async function post<T>(client: Client, path: string, body: unknown, from = origin) {
  const answer = await client.send('POST', path, body, { origin: from })
  return { status: answer.status, answer, body: (await answer.json()) as T }
}
const challengeFor = async (client: Client, path: string, body: unknown = {}) => {
  const begun = await post<{ options: { challenge: string } }>(client, path, body)
  expect(begun.status).toBe(200)
  return begun.body.options.challenge
}
async function add(client: Client, device: Device, title = 'A phone') {
  const challenge = await challengeFor(client, `${KEYS}/begin`, PASSWORD)
  return post<{ codes: string[] }>(client, KEYS, { title, credential: device.make(challenge) })
}
const askToSignIn = () => challengeFor(world.nobody, '/api/session/passkey/begin')
const show = (credential: object) => post(new Client(world.address), '/api/session/passkey', { credential })

describe('a passkey', () => {
  it('signs its owner in, is their second step, and is told of by mail', async () => {
    const liv = await world.as('liv')
    const elsewhere = await world.as('liv')
    const device = softPasskey(origin)
    expect((await post(liv, `${KEYS}/begin`, { password: 'wrong' })).status).toBe(422)
    const added = await add(liv, device)
    expect(added.body.codes).toHaveLength(10)
    expect((await elsewhere.send('GET', '/api/account')).status).toBe(401) // other browsers are signed out
    const shown = await show(device.show(await askToSignIn()))
    expect(shown.body).toMatchObject({ session: { person: { givenName: 'Liv' } } })
    expect(shown.answer.headers.getSetCookie().join()).toContain('jovrel_session=')

    const byPassword = await post(new Client(world.address), '/api/session', {
      email: email('liv'),
      ...PASSWORD,
    })
    expect(byPassword.body).toEqual({ session: null, needsCode: true, hasPasskey: true })
    const cookie = byPassword.answer.headers.getSetCookie().map(c => c.split(';')[0]!)
    const byPaper = await world.nobody.send(
      'POST',
      '/api/session/code',
      { code: added.body.codes[0] },
      { cookie: cookie.join('; ') },
    )
    expect(byPaper.status).toBe(200)

    const { body: view } = await liv.json<SecondFactorView>('GET', '/api/account/second-factor')
    expect(view).toMatchObject({ isOn: true, hasApp: false, codesLeft: 9 })
    expect(view.passkeys[0]).toMatchObject({ title: 'A phone', site: 'localhost' })
    expect(view.passkeys[0]!.lastUsedAt).not.toBeNull()
    const mails = await world.db
      .select()
      .from(t.mails)
      .where(eq(t.mails.to, email('liv')))
    expect(mails.map(m => m.subject)).toContain('A passkey was added to your Jovrel account')

    const remove = `${KEYS}/${view.passkeys[0]!.id}/remove`
    expect((await post(liv, remove, { password: 'wrong' })).status).toBe(422)
    const paz = await world.as('paz')
    expect((await post(paz, remove, PASSWORD)).status).toBe(404) // somebody else’s
    expect((await post(liv, remove, PASSWORD)).body).toMatchObject({ isOn: false, codesLeft: 0 })
    expect((await show(device.show(await askToSignIn()))).status).toBe(401)
  })

  it('is taken once for what was asked, here, of its owner, by whoever the device knows', async () => {
    const nico = await world.as('nico')
    const device = softPasskey(origin)
    await add(nico, device)
    const attempts: ReadonlyArray<readonly [what: string, credential: object]> = [
      ['nothing that was asked', device.show('bm90IGFza2Vk')],
      ['for another site', device.show(await askToSignIn(), { origin: 'https://evil.example' })],
      ['of a device that did not ask who holds it', device.show(await askToSignIn(), { isVerified: false })],
      ['with another’s handle', device.show(await askToSignIn(), { userHandle: crypto.randomUUID() })],
      ['with a broken signature', device.show(await askToSignIn(), { isBroken: true })],
      ['of a key nobody has', softPasskey(origin).show(await askToSignIn())],
      ['asked for adding one', device.show(await challengeFor(nico, `${KEYS}/begin`, PASSWORD))],
    ]
    for (const [what, credential] of attempts) expect((await show(credential)).status, what).toBe(401)
    const challenge = await askToSignIn()
    const shown = device.show(challenge, { counter: 90 })
    const both = await Promise.all([show(shown), show(shown)])
    expect(both.map(a => a.status).sort()).toEqual([200, 401])
    const copied = device.show(await askToSignIn(), { counter: 12 }) // a copy of the device counts from where it was taken
    expect((await show(copied)).status).toBe(401)
    const old = await askToSignIn()
    await world.db.update(t.passkeyChallenges).set({ expiresAt: new Date(Date.now() - 1000) })
    expect((await show(device.show(old))).status).toBe(401)
    const logged = await world.db.select({ act: t.accessLog.act, done: t.accessLog.done }).from(t.accessLog)
    expect(logged).toContainEqual({ act: 'signInByPasskey', done: false })
    expect(logged).toContainEqual({ act: 'passkeyAdded', done: true })
  })

  it('is added by whom it was asked of, where it was asked, and to one account', async () => {
    const [malin, mireille] = [await world.as('malin'), await world.as('mireille')]
    const device = softPasskey(origin)
    const challenge = await challengeFor(malin, `${KEYS}/begin`, PASSWORD)
    const send = (client: Client, credential: object) => post(client, KEYS, { title: 'A key', credential })
    expect((await send(mireille, device.make(challenge))).status).toBe(422)
    expect((await send(malin, device.make(challenge, { origin: 'https://evil.example' }))).status).toBe(422)
    const again = await challengeFor(malin, `${KEYS}/begin`, PASSWORD)
    expect((await send(malin, device.make(again, { isVerified: false }))).status).toBe(422)
    expect((await add(malin, device)).status).toBe(200)
    expect((await add(mireille, device)).status).toBe(409)
    expect((await post(malin, `${KEYS}/begin`, PASSWORD, world.address)).status).toBe(409) // a number
  })

  it('is enough where a second step is demanded of staff, and the last one stays', async () => {
    const server = await testServer(world.databaseUrl, { JOVREL_STAFF_SECOND_FACTOR: 'required' })
    try {
      const ines = await new Client(server.address).signIn(email('ines'))
      const at = server.address.replace('127.0.0.1', 'localhost')
      const device = softPasskey(at)
      expect((await ines.send('GET', `/api/seminars/${world.seminar.id}`)).status).toBe(403)
      const begun = await post<{ options: { challenge: string } }>(ines, `${KEYS}/begin`, PASSWORD, at)
      const credential = device.make(begun.body.options.challenge)
      expect((await post(ines, KEYS, { title: 'A key', credential }, at)).status).toBe(200)
      expect((await ines.send('GET', `/api/seminars/${world.seminar.id}`)).status).toBe(200)
      const { body } = await ines.json<SecondFactorView>('GET', '/api/account/second-factor')
      const removed = await post(ines, `${KEYS}/${body.passkeys[0]!.id}/remove`, PASSWORD, at)
      expect(removed.status).toBe(409)
    } finally {
      await server.stop()
    }
  })
})
