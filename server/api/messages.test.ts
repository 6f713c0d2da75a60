import { and, eq, inArray, isNull } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { sendByRules } from '#server/services/messaging/rules'
import { notifyOfMessages } from '#server/services/messaging/writeTo'
import { Client, TEST_NOW } from '#server/testing/server'
import { email, testWorld, type World } from '#server/testing/world'
import type { MessageDraft, MessageThread, RuleList, ThreadList } from '#shared/messaging/messages'
import type { PresenceView } from '#shared/voices/presence'

const NOW = Date.parse(TEST_NOW)
const later = (minutes: number) => new Date(NOW + minutes * 60_000)

describe('writing to students', () => {
  let world: World
  let [ines, henrik, paz, jonas]: Client[] = []
  let base = ''
  beforeAll(async () => {
    world = await testWorld()
    ;[ines, henrik, paz, jonas] = await Promise.all(
      ['ines', 'henrik', 'paz', 'jonas'].map(who => world.as(who)),
    )
    base = `/api/seminars/${world.seminar.id}/messages`
  })
  afterAll(() => world.close())
  const ids = async (...keys: string[]) => Promise.all(keys.map(async k => (await world.enrolment(k)).id))
  const draft = async (to: string[], activityId: string | null = world.breakwater.id) =>
    (
      await ines!.json<MessageDraft>(
        'GET',
        `${base}/draft?to=${to.join(',')}${activityId ? `&activity=${activityId}` : ''}`,
      )
    ).body
  const list = async (as: Client) => (await as.json<ThreadList>('GET', base)).body.threads
  const acts = async () =>
    new Map(
      (await ines!.json<PresenceView>('GET', `/api/seminars/${world.seminar.id}/presence`)).body.students.map(
        s => [s.id, s.acts],
      ),
    )

  it('begins with a draft that names for each what is missing, as their own page says it', async () => {
    const [pazId, livId] = await ids('paz', 'liv')
    const d = await draft([pazId!, livId!])
    expect(d.text).toContain('{missing}')
    expect(d.people.find(p => p.id === pazId)).toMatchObject({
      name: 'Paz',
      activity: '“Who paid for the breakwater?”',
      missing: expect.stringContaining('the opening post') as string,
    })
    expect(d.people.find(p => p.id === livId)!.missing).toBe('')
    const whole = await draft([pazId!], null)
    expect(whole.people[0]!.missing).toContain('“Who paid for the breakwater?”')
  })

  it('goes to each by itself, can be taken back for a minute, and is nobody’s to read before', async () => {
    const [pazId, jonasId] = await ids('paz', 'jonas')
    const write = {
      key: v7(),
      activityId: world.breakwater.id,
      subject: 'About {activity}',
      text: 'Dear {name}, still missing: {missing}.',
      people: [
        { id: pazId, text: null },
        { id: jonasId, text: 'Dear {name}, your draft is good. Post it.' },
      ],
    }
    const sent = await Promise.all(
      [0, 1].map(() => ines!.json<{ sendingId: string; sent: number }>('POST', base, write)),
    )
    expect(sent.map(s => s.body)).toEqual([sent[0]!.body, sent[0]!.body]) // sent twice, written once
    expect(
      await world.db.$count(t.messageThreads, eq(t.messageThreads.sendingId, sent[0]!.body.sendingId)),
    ).toBe(2)
    expect(await list(paz!)).toEqual([])
    expect((await henrik!.send('DELETE', `${base}/sendings/${sent[0]!.body.sendingId}`)).status).toBe(404) // not his to take back
    expect(
      (await ines!.json<{ takenBack: number }>('DELETE', `${base}/sendings/${sent[0]!.body.sendingId}`)).body
        .takenBack,
    ).toBe(2)
    expect(
      await world.db.$count(t.messageThreads, eq(t.messageThreads.sendingId, sent[0]!.body.sendingId)),
    ).toBe(0)

    const before = await acts()
    const again = (await ines!.json<{ sendingId: string }>('POST', base, { ...write, key: v7() })).body
    expect(await notifyOfMessages(world.db, later(0.5))).toBe(0)
    const told = await Promise.all([
      notifyOfMessages(world.db, later(2)),
      notifyOfMessages(world.db, later(2)),
    ])
    expect(told[0]! + told[1]!).toBe(2)
    expect(
      (await ines!.json<{ code: string }>('DELETE', `${base}/sendings/${again.sendingId}`)).body.code,
    ).toBe('told')
    const [mine] = await list(paz!)
    expect(mine).toMatchObject({
      subject: 'About “Who paid for the breakwater?”',
      startedBy: 'Ines Okafor-Lind',
      fresh: true,
    })
    const open = (await paz!.json<MessageThread>('GET', `${base}/threads/${mine!.id}`)).body
    expect(open.messages.map(m => m.text)).toEqual([
      expect.stringMatching(/^Dear Paz, still missing: the opening post.*\.$/),
    ])
    expect((await jonas!.json('GET', `${base}/threads/${mine!.id}`)).status).toBe(404)
    const mails = await world.db
      .select()
      .from(t.mails)
      .where(eq(t.mails.to, email('paz')))
    expect(mails.filter(m => m.subject.includes('wrote to you'))).toHaveLength(1)
    expect(mails.at(-1)!.text).toContain(`/messages?thread=${mine!.id}`)
    // the same words to several are contact with nobody; words for one alone are contact with them
    const after = await acts()
    expect([after.get(pazId!)! - before.get(pazId!)!, after.get(jonasId!)! - before.get(jonasId!)!]).toEqual([
      0, 1,
    ])
  })

  it('brings an answer back to the thread, to whoever teaches, and once', async () => {
    const [mine] = await list(paz!)
    const reply = { key: v7(), text: 'I was ill. I will write tonight.' }
    for (let i = 0; i < 2; i++)
      expect((await paz!.send('POST', `${base}/threads/${mine!.id}/replies`, reply)).status).toBe(200)
    const seen = (await list(ines!)).find(x => x.id === mine!.id)!
    expect(seen).toMatchObject({ fresh: true, messages: 2, lastWords: reply.text, lastIsMine: false })
    expect(
      (await henrik!.json<MessageThread>('GET', `${base}/threads/${mine!.id}`)).body.messages.at(-1),
    ).toMatchObject({ author: 'Paz Jaramillo', text: reply.text })
    const me = await world.enrolment('ines')
    expect(
      await world.db.$count(t.notices, and(eq(t.notices.enrolmentId, me.id), eq(t.notices.kind, 'message'))),
    ).toBe(1)
    const before = await acts()
    await ines!.send('POST', `${base}/threads/${mine!.id}/replies`, { key: v7(), text: 'Get well first.' })
    expect((await acts()).get(seen.studentId)! - before.get(seen.studentId)!).toBe(1)
  })

  it('are listed in lots without losing one, also of many that went out at one instant', async () => {
    const me = await world.enrolment('ines')
    const students = await world.db
      .select({ id: t.enrolments.id })
      .from(t.enrolments)
      .where(and(eq(t.enrolments.seminarId, world.seminar.id), eq(t.enrolments.role, 'student')))
    const at = new Date('2026-10-01T08:00:00Z')
    const rows = Array.from({ length: 130 }, (_, i) => ({
      id: v7(),
      seminarId: world.seminar.id,
      studentId: students[i % students.length]!.id,
      startedBy: me.id,
      subject: `Lot ${i}`,
      sendingId: v7(),
      madeAt: at,
      lastAt: at,
      toldAt: at,
    }))
    await world.db.insert(t.messageThreads).values(rows)
    const seen: string[] = []
    for (let before = ''; ;) {
      const { body } = await ines!.json<ThreadList>('GET', `${base}${before && `?before=${before}`}`)
      seen.push(...body.threads.map(x => x.id))
      if (!body.more) break
      before = seen.at(-1)!
    }
    expect(new Set(seen).size).toBe(seen.length)
    expect(rows.filter(r => !seen.includes(r.id))).toEqual([])
    await world.db.delete(t.messageThreads).where(
      inArray(
        t.messageThreads.id,
        rows.map(r => r.id),
      ),
    )
  })

  it('refuses whoever has left, and writes to none then', async () => {
    const [pazId, nicoId] = await ids('paz', 'nico')
    await world.db.update(t.enrolments).set({ state: 'withdrawn' }).where(eq(t.enrolments.id, nicoId!))
    const n = await world.db.$count(t.messages)
    expect(
      (
        await ines!.json<{ fields: object }>('POST', base, {
          key: v7(),
          activityId: null,
          subject: 'A',
          text: 'B',
          people: [
            { id: pazId, text: null },
            { id: nicoId, text: null },
          ],
        })
      ).status,
    ).toBe(422)
    expect(await world.db.$count(t.messages)).toBe(n)
    await world.db.update(t.enrolments).set({ state: 'active' }).where(eq(t.enrolments.id, nicoId!))
  })

  it('by a standing rule reaches those it showed before it was switched on, once each, and nobody for what lay before', async () => {
    const {
      body: { id },
    } = await ines!.json<{ id: string }>('POST', `${base}/rules`, {
      activityId: world.dredge.id,
      daysBefore: 1,
      atTime: '12:00',
      subject: 'Before {activity}',
      text: 'Dear {name}, {activity} is due {due}: {missing}.',
    })
    const rule = async () =>
      (await ines!.json<RuleList>('GET', `${base}/rules`)).body.rules.find(r => r.id === id)!
    const shown = await rule()
    expect(shown).toMatchObject({ on: false, sent: 0 })
    const [next] = shown.coming
    const at = new Date(next!.at)
    const after = (minutes: number) => new Date(at.getTime() + minutes * 60_000)
    expect(await sendByRules(world.db, after(1))).toBe(0) // it is off
    // switched on only after its moment, it does not catch up
    await world.db
      .update(t.messageRules)
      .set({ on: true, onSince: after(5) })
      .where(eq(t.messageRules.id, id))
    expect(await sendByRules(world.db, after(10))).toBe(0)
    await world.db.update(t.messageRules).set({ on: false, onSince: null }).where(eq(t.messageRules.id, id))
    expect(
      (await ines!.send('PUT', `${base}/rules/${id}/on`, { on: true, version: shown.version })).status,
    ).toBe(200)
    expect(
      (await ines!.send('PUT', `${base}/rules/${id}/on`, { on: true, version: shown.version })).status,
    ).toBe(409) // somebody else’s stale page
    // one has an extension: their own due time is later, and so is their reminder
    const [pazId] = await ids('paz')
    const silentNow = next!.now
    await world.db.insert(t.extensions).values({
      seminarId: world.seminar.id,
      activityId: world.dredge.id,
      enrolmentId: pazId!,
      dueAt: after(5 * 1440),
      reason: 'ill',
    })
    expect(await sendByRules(world.db, after(-1))).toBe(0)
    const runs = await Promise.all([sendByRules(world.db, after(1)), sendByRules(world.db, after(1))])
    expect(runs[0]! + runs[1]!).toBe(silentNow - 1)
    expect(await sendByRules(world.db, after(30))).toBe(0)
    const threads = await world.db.select().from(t.messageThreads).where(eq(t.messageThreads.ruleId, id))
    expect(new Set(threads.map(x => x.studentId)).size).toBe(silentNow - 1)
    expect(threads.map(x => x.studentId)).not.toContain(pazId)
    const [said] = await world.db.select().from(t.messages).where(eq(t.messages.threadId, threads[0]!.id))
    expect(said).toMatchObject({ direct: false })
    expect(said!.text).not.toMatch(/[{}]/)
    expect((await ines!.json<{ code: string }>('DELETE', `${base}/rules/${id}`)).body.code).toBe('used')
    // changed, it is off again
    await ines!.send('PUT', `${base}/rules/${id}`, {
      activityId: null,
      daysBefore: 2,
      atTime: '09:00',
      subject: 'A',
      text: 'B',
    })
    expect(await rule()).toMatchObject({ on: false, daysBefore: 2 })
    expect(
      await world.db.$count(
        t.messageThreads,
        and(eq(t.messageThreads.ruleId, id), isNull(t.messageThreads.toldAt)),
      ),
    ).toBe(silentNow - 1)
  })
})
