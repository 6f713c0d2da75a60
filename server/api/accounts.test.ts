import { eq, isNull } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { Client, testServer } from '#server/testing/server'
import { listenTo } from '#server/testing/listenTo'
import { until } from '#server/testing/until'
import { email, testWorld, type World } from '#server/testing/world'
import type { AccountView, SessionList } from '#shared/people/account'
import type { PeopleView } from '#shared/people/people'

const HOUR = 3_600_000

let world: World
beforeAll(async () => {
  world = await testWorld()
})
afterAll(() => world.close())

const person = async (address: string) => {
  const [row] = await world.db.select().from(t.persons).where(eq(t.persons.email, address))
  return row!
}
/** The path of the newest link that was mailed to an address. */
const linkTo = async (address: string, kind: 'password' | 'address') => {
  const mails = await world.db.select().from(t.mails).where(eq(t.mails.to, address)).orderBy(t.mails.madeAt)
  return mails.flatMap(m => new RegExp(`/${kind}/\\S+`).exec(m.text) ?? []).at(-1)!
}
const member = (client: Client) => client.send('GET', `/api/seminars/${world.seminar.id}`)

describe('signing in', () => {
  it('checks ten of two hundred wrong passwords that come at once, and locks no owner out of a browser they know', async () => {
    const first = await world.nobody.send('POST', '/api/session', {
      email: email('mireille'),
      password: 'harbour',
    })
    const browser = first.headers
      .getSetCookie()
      .find(c => c.startsWith('jovrel_browser='))!
      .split(';')[0]!
    const guesses = await Promise.all(
      Array.from({ length: 200 }, async (_, n) => {
        const body = { email: email('mireille'), password: `guess ${n}` }
        return (await new Client(world.address).send('POST', '/api/session', body)).status
      }),
    )
    expect(guesses.filter(s => s === 401)).toHaveLength(10)
    expect(guesses.filter(s => s === 429)).toHaveLength(190)
    const right = { email: email('mireille'), password: 'harbour' }
    expect((await world.nobody.send('POST', '/api/session', right)).status).toBe(429)
    expect((await world.nobody.send('POST', '/api/session', right, { cookie: browser })).status).toBe(200)
    // somebody else's browser is no key to this account
    const other = await world.nobody.send('POST', '/api/session', { ...right, email: email('kadri') })
    const stranger = other.headers.getSetCookie().find(c => c.startsWith('jovrel_browser='))!
    expect(
      (await world.nobody.send('POST', '/api/session', right, { cookie: stranger.split(';')[0]! })).status,
    ).toBe(429)
  })

  it('refuses joining codes and links that are tried in numbers, from the client that tries them', async () => {
    const tried = await Promise.all(
      Array.from(
        { length: 80 },
        async (_, n) => (await world.nobody.send('GET', `/api/join/TRY-${n}`)).status,
      ),
    )
    expect(tried.filter(s => s === 404)).toHaveLength(60)
    expect(tried.filter(s => s === 429)).toHaveLength(20)
    await world.db.delete(t.rateLimits)
  })
})

describe('an address', () => {
  const early = {
    givenName: 'Thea',
    familyName: 'Taken',
    email: 'thea@x.example',
    password: 'silt stone quay',
  }

  it('of an account made early opens no role that is given to it, until its owner has followed a link', async () => {
    const thief = new Client(world.address)
    expect((await thief.send('POST', '/api/join/KELP-4QX', { account: early })).status).toBe(200)
    await thief.signIn(early.email, early.password)
    expect((await member(thief)).status).toBe(200) // what the code gave
    const calendar = await thief.json<AccountView>('POST', '/api/account/calendar')
    const ines = await world.as('ines')
    const base = `/api/seminars/${world.seminar.id}/people`
    const { people } = (await ines.json<PeopleView>('GET', base)).body
    const id = people.find(p => p.email === early.email)!.id
    expect((await ines.send('PATCH', `${base}/${id}`, { role: 'assistant' })).status).toBe(200)
    const refused = await thief.json<{ code: string }>('GET', `/api/seminars/${world.seminar.id}`)
    expect([refused.status, refused.body.code]).toEqual([403, 'addressNotConfirmed'])
    expect((await thief.send('GET', `/api/activities/${world.breakwater.id}/desk`)).status).toBe(403)

    await ines.send('POST', `${base}/invite`, { key: v7(), enrolmentIds: [id] })
    const owner = new Client(world.address)
    const link = `/api${await linkTo(early.email, 'password')}`
    expect((await owner.send('POST', link, { password: 'my own few words' })).status).toBe(200)
    await owner.signIn(early.email, 'my own few words')
    expect((await member(owner)).status).toBe(200)
    expect((await thief.send('GET', '/api/account')).status).toBe(401)
    expect((await world.nobody.send('GET', calendar.body.calendarPath!)).status).toBe(404)
  })

  it('is confirmed by the link alone, and changed only once the new one is confirmed; links to the old one die', async () => {
    const paz = await world.as('paz')
    await world.nobody.send('POST', '/api/password', { email: email('paz') })
    const old = `/api${await linkTo(email('paz'), 'password')}`
    expect((await world.nobody.send('GET', old)).status).toBe(200)
    const wrong = { email: 'paz@new.example', password: 'not hers' }
    expect((await paz.send('PUT', '/api/account/email', wrong)).status).toBe(422)
    const asked = await paz.json<AccountView>('PUT', '/api/account/email', { ...wrong, password: 'harbour' })
    expect(asked.body).toMatchObject({ email: email('paz'), emailAskedFor: 'paz@new.example' })
    const link = `/api${await linkTo('paz@new.example', 'address')}`
    expect((await world.nobody.json('GET', link)).body).toMatchObject({ email: 'paz@new.example' })
    expect((await person(email('paz'))).email).toBe(email('paz')) // looking at it changes nothing
    expect((await world.nobody.send('POST', link)).status).toBe(200)
    expect((await world.nobody.send('POST', link)).status).toBe(404)
    expect((await paz.json<AccountView>('GET', '/api/account')).body.email).toBe('paz@new.example')
    expect((await world.nobody.send('GET', old)).status).toBe(404)
    expect(await world.db.$count(t.mails, eq(t.mails.to, email('paz')))).toBe(2) // the old address is told
  })

  it('is not taken from another account', async () => {
    const kadri = await world.as('kadri')
    const write = { email: email('liv'), password: 'harbour' }
    expect((await kadri.send('PUT', '/api/account/email', write)).status).toBe(200) // who has an account is not told
    const link = `/api${await linkTo(email('liv'), 'address')}`
    expect((await world.nobody.send('POST', link)).status).toBe(409)
    expect((await kadri.json<AccountView>('GET', '/api/account')).body.email).toBe(email('kadri'))
  })
})

describe('a password', () => {
  it('is long, not common, and not its owner’s own data', async () => {
    const account = { givenName: 'Odalys', familyName: 'Quist', email: 'odalys.quist@x.example' }
    for (const password of [
      'short one',
      'password12',
      'qwertyuiop',
      '1234567890',
      'OdalysQuist1',
      'odalys.quist@x',
    ]) {
      const answer = await world.nobody.json<{ fields: Record<string, string> }>(
        'POST',
        '/api/join/KELP-4QX',
        {
          account: { ...account, password },
        },
      )
      expect([password, answer.status]).toEqual([password, 422])
      expect(Object.keys(answer.body.fields)[0]).toMatch(/password$/)
    }
    expect(await world.db.$count(t.persons, eq(t.persons.email, account.email))).toBe(0)
  })

  it('is set by the newest link only, once, within an hour', async () => {
    const address = email('oona')
    await world.nobody.send('POST', '/api/password', { email: address })
    const first = `/api${await linkTo(address, 'password')}`
    await world.nobody.send('POST', '/api/password', { email: address })
    const second = `/api${await linkTo(address, 'password')}`
    const password = { password: 'gravel under the keel' }
    expect((await world.nobody.send('POST', first, password)).status).toBe(404)
    const [link] = await world.db.select().from(t.passwordLinks).where(isNull(t.passwordLinks.usedAt))
    expect(link!.expiresAt.getTime() - Date.now()).toBeLessThanOrEqual(HOUR)
    const used = await Promise.all([1, 2, 3].map(() => world.nobody.send('POST', second, password)))
    expect(used.map(a => a.status).sort()).toEqual([200, 404, 404])
  })

  it('is changed with the present one, which signs every other browser out', async () => {
    const [here, there] = [await world.as('malin'), await world.as('malin')]
    const write = { current: 'harbour', password: 'lanterns along the mole' }
    expect((await here.send('PUT', '/api/account/password', { ...write, current: 'harbor' })).status).toBe(
      422,
    )
    expect((await here.send('PUT', '/api/account/password', write)).status).toBe(200)
    expect((await member(here)).status).toBe(200)
    expect((await member(there)).status).toBe(401)
    await new Client(world.address).signIn(email('malin'), write.password)
  })
})

describe('a session', () => {
  const sessionsOf = async (client: Client) =>
    (await client.json<SessionList>('GET', '/api/account/sessions')).body.sessions

  it('is listed, and ended from another browser, one or all', async () => {
    const [here, there, far] = [await world.as('rasmus'), await world.as('rasmus'), await world.as('rasmus')]
    const list = await sessionsOf(here)
    expect(list).toHaveLength(3)
    expect(list.filter(s => s.isThis)).toHaveLength(1)
    const theirs = (await sessionsOf(there)).find(s => s.isThis)!
    expect((await here.send('DELETE', `/api/account/sessions/${theirs.id}`)).status).toBe(200)
    expect((await member(there)).status).toBe(401)
    expect((await here.json('DELETE', '/api/account/sessions')).body).toEqual({ ended: 1 })
    expect((await member(far)).status).toBe(401)
    expect((await member(here)).status).toBe(200)
  })

  it('ends by itself after a week without use', async () => {
    const laleh = await world.as('laleh')
    const { id } = await person(email('laleh'))
    const seen = (days: number) =>
      world.db
        .update(t.sessions)
        .set({ lastSeenAt: new Date(Date.now() - days * 24 * HOUR) })
        .where(eq(t.sessions.personId, id))
    await seen(6)
    expect((await member(laleh)).status).toBe(200) // which is use
    expect((await sessionsOf(laleh))[0]!.lastSeenAt > new Date(Date.now() - HOUR).toISOString()).toBe(true)
    await seen(8)
    expect((await member(laleh)).status).toBe(401)
  })

  it('takes its open streams with it: at signing out, at another’s ending it, and when its person is withdrawn', async () => {
    const ines = await world.as('ines')
    const enrolment = await world.enrolment('nico')
    const endings: ReadonlyArray<(nico: Client) => Promise<unknown>> = [
      nico => nico.send('DELETE', '/api/session'),
      async nico => {
        const other = await world.as('nico')
        expect((await other.send('DELETE', '/api/account/sessions')).status).toBe(200)
        expect((await member(nico)).status).toBe(401)
      },
      () =>
        ines.send('PATCH', `/api/seminars/${world.seminar.id}/people/${enrolment.id}`, {
          state: 'withdrawn',
        }),
    ]
    for (const end of endings) {
      const nico = await world.as('nico')
      const stream = await listenTo(nico, world.breakwater.id)
      let isOver = false
      void stream.ended.then(() => {
        isOver = true
      })
      await end(nico)
      await until('the end of the stream', async () => isOver, 10)
    }
  })
})

describe('what a request says of where it comes from', () => {
  it('is believed of the address it was sent to alone, not of what is forwarded', async () => {
    const { host } = new URL(world.address)
    const statusFrom = async (headers: Record<string, string>) =>
      (await world.nobody.send('POST', '/api/password', { email: 'nobody@x.example' }, headers)).status
    expect(await statusFrom({ origin: `http://${host.replace('127.0.0.1', 'localhost')}` })).toBe(200)
    expect(await statusFrom({ origin: 'https://evil.example', 'x-forwarded-host': 'evil.example' })).toBe(403)
    expect(await statusFrom({ origin: `https://${host}`, 'x-forwarded-proto': 'https' })).toBe(403)
  })

  it('is believed of a trusted proxy: cookies are for encrypted connections then, and the browser is to stay with them', async () => {
    const origin = 'https://seminars.example'
    const server = await testServer(world.databaseUrl, {
      JOVREL_ADDRESS: origin,
      JOVREL_TRUSTED_PROXIES: '127.0.0.1',
    })
    const body = { email: email('kadri'), password: 'harbour' }
    const outside = new Client(server.address)
    expect((await outside.send('POST', '/api/session', body)).status).toBe(403) // not the configured address
    const answer = await outside.send('POST', '/api/session', body, { origin, 'x-forwarded-proto': 'https' })
    expect(answer.headers.getSetCookie().every(c => c.includes('Secure'))).toBe(true)
    expect(answer.headers.get('strict-transport-security')).toMatch(/^max-age=\d{7,}/)
    await server.stop()
  })

  it('leaves pages uncached and unnamed; only behind encryption is it asked to stay so', async () => {
    const page = await world.nobody.send('GET', '/sign-in', undefined, { 'x-forwarded-proto': 'https' })
    expect(page.headers.get('cache-control')).toContain('no-store')
    expect(page.headers.get('x-powered-by')).toBeNull()
    expect(page.headers.get('strict-transport-security')).toBeNull()
  })

  it('is not read beyond what signing in takes, while nobody is signed in; nor beyond its limit in pieces', async () => {
    const large = JSON.stringify({ email: 'a@x.example', password: 'x'.repeat(30_000) })
    expect((await world.nobody.send('POST', '/api/session', large)).status).toBe(401)
    const liv = await world.as('liv')
    let pieces = 40
    const body = new ReadableStream<Uint8Array>({
      pull: controller => (pieces-- > 0 ? controller.enqueue(Buffer.alloc(50_000, 'x')) : controller.close()),
    })
    const answer = await fetch(`${world.address}/api/activities/${world.dredge.id}/draft`, {
      method: 'PUT',
      body,
      duplex: 'half',
      headers: { cookie: liv.cookies, origin: world.address, 'content-type': 'application/json' },
    } as RequestInit & { duplex: 'half' }).catch(() => null)
    if (answer) expect(answer.status).toBe(413) // or the connection is cut while it is still being sent
    expect((await liv.send('GET', '/api/account')).status).toBe(200)
  })

  it('is refused with a sentence where a text cannot be stored', async () => {
    const liv = await world.as('liv')
    for (const givenName of ['Li\0v', 'Li\ud83d']) {
      const answer = await liv.json<{ detail: string }>('PUT', '/api/account/name', {
        givenName,
        familyName: 'B',
      })
      expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining('cannot be stored')])
    }
  })
  it('takes one name alone, which stays one when it is sent again as it is asked for', async () => {
    const liv = await world.as('liv')
    let parts = { givenName: 'Suharti', familyName: '' }
    for (let i = 0; i < 2; i++) {
      const { body } = await liv.json<AccountView>('PUT', '/api/account/name', parts)
      expect(body).toMatchObject({ name: 'Suharti', givenName: 'Suharti', familyName: '' })
      parts = { givenName: body.givenName, familyName: body.familyName }
    }
  })
})
