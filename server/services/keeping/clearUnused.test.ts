import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import * as t from '#server/database/schema'
import { testDatabase } from '#server/testing/database'
import { clearUnused } from './clearUnused'

const NOW = new Date('2026-10-14T08:20:00Z')
const daysAgo = (days: number) => new Date(NOW.getTime() - days * 86_400_000)

describe('what is of no further use', () => {
  let database: Awaited<ReturnType<typeof testDatabase>>
  beforeAll(async () => {
    database = await testDatabase()
  })
  afterAll(() => database.drop())

  it('is removed by its age; what may still be asked for stays, and so does all that people wrote', async () => {
    const { db } = database
    const [someone] = await db.select().from(t.enrolments).limit(1)
    const { id: enrolmentId, seminarId, personId } = someone!
    const written = await db.$count(t.contributions)
    await clearUnused(db, NOW)
    const count = async () => ({
      answers: await db.$count(t.idempotencyRecords),
      sessions: await db.$count(t.sessions),
      links: await db.$count(t.passwordLinks),
      notices: await db.$count(t.notices),
      mails: await db.$count(t.mails),
      mailroom: await db.$count(t.mailroomMessages),
    })
    const before = await count()
    const answer = (madeAt: Date) => ({ enrolmentId, seminarId, key: v7(), answer: {}, madeAt })
    await db.insert(t.idempotencyRecords).values([answer(daysAgo(31)), answer(daysAgo(29))])
    const session = (expiresAt: Date, revokedAt: Date | null) => ({
      ...{ personId, digest: v7(), expiresAt, revokedAt, madeAt: daysAgo(60) },
    })
    await db
      .insert(t.sessions)
      .values([
        session(daysAgo(31), null),
        session(daysAgo(-5), daysAgo(40)),
        session(daysAgo(2), null),
        session(daysAgo(-5), null),
      ])
    const link = (expiresAt: Date, usedAt: Date | null) => ({ personId, digest: v7(), expiresAt, usedAt })
    await db
      .insert(t.passwordLinks)
      .values([link(daysAgo(2), null), link(daysAgo(-1), daysAgo(0)), link(daysAgo(-1), null)])
    const notice = (madeAt: Date) => ({
      ...{ seminarId, enrolmentId, kind: 'changed' as const, activityId: null, text: 'Old.', madeAt },
    })
    await db.insert(t.notices).values([notice(daysAgo(401)), notice(daysAgo(399))])
    const mail = (state: 'sent' | 'waiting', sentAt: Date | null) => ({
      ...{ key: v7(), to: 'liv@northmere.example', subject: 'One', text: 'Two', state, sentAt },
    })
    await db
      .insert(t.mails)
      .values([mail('sent', daysAgo(91)), mail('sent', daysAgo(89)), mail('waiting', null)])
    const message = (receivedAt: Date) => ({ from: 'a', to: ['b'], subject: 'c', text: 'd', receivedAt })
    await db.insert(t.mailroomMessages).values([message(daysAgo(91)), message(daysAgo(1))])
    expect(await clearUnused(db, NOW)).toBe(8)
    expect(await count()).toEqual({
      answers: before.answers + 1,
      sessions: before.sessions + 2,
      links: before.links + 1,
      notices: before.notices + 1,
      mails: before.mails + 2,
      mailroom: before.mailroom + 1,
    })
    expect(await db.$count(t.contributions)).toBe(written)
    expect(await clearUnused(db, NOW)).toBe(0)
  })
})
