import { eq, inArray } from 'drizzle-orm'
import { SMTPServer } from 'smtp-server'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { freePort } from '#scripts/cluster.mjs'
import * as t from '#server/database/schema'
import { mailDailyNotices } from '#server/services/messaging/notices'
import { publishDue } from '#server/services/composing/publish'
import { Client, TEST_NOW, testServer } from '#server/testing/server'
import { until } from '#server/testing/until'
import { email, testWorld, type World } from '#server/testing/world'
import type { Mailroom } from '#shared/messaging/notices'
import type { ComposerView } from '#shared/planning/composer'

const key = () => v7()
const NOW = new Date(TEST_NOW)

describe('telling students', () => {
  let world: World
  let ines: Client
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ines = await world.as('ines')
  })
  afterAll(() => world.close())

  it('writes one mail to each who takes part and wants it at once, a notice to all, one mail a day to who wants that', async () => {
    const { body: before } = await ines.json<ComposerView>('GET', `/api/activities/${world.essays.id}/plan`)
    const publish = { key: key(), baseVersion: before.version, opens: 'now', tell: true }
    for (let i = 0; i < 2; i++)
      expect((await ines.send('POST', `/api/activities/${world.essays.id}/publish`, publish)).status).toBe(
        200,
      )
    // only what this tells: a mail of the test before may still have been on its way to the same mailroom
    const mails = await until('23 mails', async () => {
      const { messages } = (await ines.json<Mailroom>('GET', '/api/mailroom')).body
      const openings = messages.filter(m => m.subject.includes('“Draft essays” is open.'))
      return openings.length >= 23 && openings
    })
    expect(mails).toHaveLength(23)
    expect(new Set(mails.flatMap(m => m.to)).size).toBe(23)
    expect(mails.flatMap(m => m.to)).not.toContain(email('petra'))
    expect(mails[0]!.text).toMatch(/Writing until Sunday \d+ \w+,? 23:59/)
    expect(mails[0]!.text).toContain(
      `${world.address}/seminars/${world.seminar.id}/activities/${world.essays.id}`,
    )
    const petra = await world.as('petra')
    expect(
      (await petra.json<{ notices: unknown[] }>('GET', `/api/seminars/${world.seminar.id}/notices`)).body
        .notices,
    ).toHaveLength(1)
    expect(await mailDailyNotices(world.db, NOW)).toBe(1)
    expect(await mailDailyNotices(world.db, NOW)).toBe(0)
    await until("petra's mail of the day", async () =>
      (await ines.json<Mailroom>('GET', '/api/mailroom')).body.messages.find(
        m => m.to.includes(email('petra')) && m.text.includes('Draft essays'),
      ),
    )
  })

  it('opens what is scheduled when its time has come, once', async () => {
    await world.db
      .update(t.activities)
      .set({ opensAt: new Date(NOW.getTime() - 60_000) })
      .where(eq(t.activities.id, world.pilot.id))
    const opened = await Promise.all([publishDue(world.db, NOW), publishDue(world.db, NOW)])
    expect(opened.reduce((a, b) => a + b, 0)).toBe(1)
    expect(await world.db.$count(t.notices, eq(t.notices.activityId, world.pilot.id))).toBe(24)
  })
})

describe('a mail server that is down', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld({ own: true })
  })
  afterAll(() => world.close())

  it('delays mail and loses none: it sends each once when it is back', async () => {
    const port = await freePort()
    const down = await testServer(world.databaseUrl, {
      SMTP_URL: `smtp://127.0.0.1:${port}?ignoreTLS=true`,
      JOVREL_MAIL_RETRY_SECONDS: '1',
    })
    // the world's own server would deliver to its mailroom: this one is alone with what is written now
    await world.stopServer()
    const henrik = await new Client(down.address).signIn(email('ines'))
    const people = await world.db
      .select({ id: t.enrolments.id })
      .from(t.enrolments)
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
      .where(inArray(t.persons.email, [email('liv'), email('oona'), email('nico')]))
    expect(
      (
        await henrik.json<{ invited: number }>('POST', `/api/seminars/${world.seminar.id}/people/invite`, {
          key: key(),
          enrolmentIds: people.map(p => p.id),
        })
      ).body.invited,
    ).toBe(3)
    const waiting = () => world.db.select().from(t.mails).where(eq(t.mails.state, 'waiting'))
    await until('a first try', async () => (await waiting()).some(m => m.tries > 0))
    expect(await waiting()).toHaveLength(3)
    const came: string[] = []
    const smtp = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      onData: (stream, session, done) => {
        stream.on('data', () => {})
        stream.on('end', () => {
          came.push(session.envelope.rcptTo[0]!.address)
          done()
        })
      },
    })
    await new Promise<void>(resolve => smtp.listen(port, '127.0.0.1', resolve))
    await until('all three mails', async () => (await waiting()).length === 0, 90)
    expect(came.sort()).toEqual([email('liv'), email('nico'), email('oona')])
    await new Promise<void>(resolve => smtp.close(() => resolve()))
    await down.stop()
  })
})
