import { and, eq, inArray } from 'drizzle-orm'
import { SMTPServer } from 'smtp-server'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { freePort } from '../../scripts/cluster.mjs'
import * as t from '#server/database/schema'
import { mailDailyNotices } from '#server/services/messaging/notices'
import { publishDue } from '#server/services/planning/publish'
import { Client, TEST_NOW, testServer } from '#server/testing/server'
import { until } from '#server/testing/until'
import { doc, email, testWorld, words, type World } from '#server/testing/world'
import type { ThreadView } from '#shared/contributing/thread'
import type { Mailroom } from '#shared/messaging/notices'
import type { ActivityBody, ComposerView, EffectView } from '#shared/planning/composer'
import type { TermPlan } from '#shared/planning/plan'

const key = () => v7()
const NOW = new Date(TEST_NOW)
/** Local clock of the demo seminar. */
const wall = (at: string | Date) => new Intl.DateTimeFormat('en-GB', { timeZone: 'Europe/Amsterdam', weekday: 'short', hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(new Date(at))

describe('planning an activity', () => {
  let world: World
  let ines: Client
  const path = (id: string) => `/api/activities/${id}/plan`
  const view = async (id: string) => (await ines.json<ComposerView>('GET', path(id))).body
  const patch = async (id: string, change: Partial<ActivityBody>, tell = false) => ines.json<ComposerView>('PATCH', path(id), { key: key(), baseVersion: (await view(id)).version, change, tell })
  const rulesOf = (v: ComposerView) => (v.body as ActivityBody).rules
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
  })
  afterAll(() => world.close())

  it('tells the second of two instructors what the first has stored, and changes nothing', async () => {
    const before = await view(world.essays.id)
    const write = (title: string) => ines.json<ComposerView & { theirs: ComposerView }>('PATCH', path(world.essays.id), { key: key(), baseVersion: before.version, change: { title }, tell: false })
    expect((await write('First')).status).toBe(200)
    const second = await write('Second')
    expect(second.status).toBe(409)
    expect(second.body.theirs).toMatchObject({ version: before.version + 1, body: { title: 'First' }, savedBy: 'Ines Okafor-Lind' })
    expect((await view(world.essays.id)).body.title).toBe('First')
  })

  it('says what a change would do, and then does exactly that', async () => {
    const before = await view(world.breakwater.id)
    const rules = rulesOf(before).map(r => r.rule.kind === 'entries' ? { ...r, rule: { ...r.rule, minWords: 235 } } : r)
    const effect = (await ines.json<EffectView>('POST', `${path(world.breakwater.id)}/effect`, { change: { rules } })).body
    expect((await view(world.breakwater.id)).counts).toEqual(before.counts) // nothing was done
    expect(effect.kept).toBe(await world.db.$count(t.contributions, eq(t.contributions.activityId, world.breakwater.id)))
    const expected = { ...before.counts }
    for (const m of effect.moves) { expected[m.from as keyof typeof expected] -= m.people; expected[m.to as keyof typeof expected] += m.people }
    expect((await patch(world.breakwater.id, { rules })).body.counts).toEqual(expected)
    const shut = (await ines.json<EffectView>('POST', `${path(world.dredge.id)}/effect`, { change: { opensAt: '2026-10-15T06:00:00Z', phases: ((await view(world.dredge.id)).body as ActivityBody).phases.map(p => p.name === 'write' ? { ...p, startsAt: '2026-10-15T06:00:00Z' } : p) } })).body
    expect(shut.shuts).toBe(true)
    // a close that comes later makes who is not done yet "under way" again
    const later = (before.body as ActivityBody).phases.map(p => p.name === 'respond' ? { ...p, endsAt: '2026-10-18T21:59:00.000Z' } : p.name === 'mark' ? { ...p, startsAt: '2026-10-18T22:00:00.000Z', endsAt: '2026-10-25T21:59:00.000Z' } : p.name === 'return' ? { ...p, startsAt: '2026-10-25T22:00:00.000Z', endsAt: '2026-10-30T17:00:00.000Z' } : p)
    const strict = rulesOf(before).map(r => ({ ...r, rule: { ...r.rule, need: 9 } }))
    const asked = (await ines.json<EffectView>('POST', `${path(world.breakwater.id)}/effect`, { change: { rules: strict, phases: later } })).body
    expect(asked.moves).toContainEqual({ from: 'ready', to: 'underWay', people: 11 })
    await patch(world.breakwater.id, { rules: rulesOf(before) })
  })

  it('loses no word when the kind changes, and comes back as it was', async () => {
    const rows = () => world.db.select({ id: t.contributions.id, type: t.contributions.type, text: t.contributions.text, state: t.contributions.state }).from(t.contributions).where(eq(t.contributions.activityId, world.dredge.id)).orderBy(t.contributions.id)
    const [before, was] = [await rows(), await view(world.dredge.id)]
    expect((await patch(world.dredge.id, { kind: 'blog' })).status).toBe(200)
    const blog = await rows()
    expect(blog.map(r => [r.id, r.text, r.state])).toEqual(before.map(r => [r.id, r.text, r.state]))
    expect(new Set(blog.map(r => r.type))).toEqual(new Set(['entry', 'comment']))
    expect((await patch(world.dredge.id, { kind: 'discussion' })).body.counts).toEqual(was.counts)
    expect(await rows()).toEqual(before)
  })

  it('refuses sentences that do not apply to the kind, dates that contradict each other, and reviewing before hand-in ends', async () => {
    expect((await patch(world.dredge.id, { kind: 'journal' })).status).toBe(422)
    const { body } = await view(world.essays.id)
    const phases = (body as ActivityBody).phases
    const review = phases.find(p => p.name === 'review')!
    for (const wrong of [
      phases.map(p => p.name === 'write' ? { ...p, endsAt: new Date(Date.parse(review.startsAt) + 3_600_000).toISOString() } : p),
      phases.map(p => p.name === 'write' ? { ...p, endsAt: p.startsAt } : p),
      phases.filter(p => p.name === 'mark'),
    ]) expect((await patch(world.essays.id, { phases: wrong })).status).toBe(422)
    expect((await view(world.essays.id)).body.phases).toEqual(phases)
  })

  it('takes nothing of another seminar', async () => {
    const [foreign] = await world.db.select().from(t.seminars).where(eq(t.seminars.code, 'XX 1'))
    const [unit] = await world.db.insert(t.units).values({ seminarId: foreign!.id, title: 'Theirs', fromWeek: 1, toWeek: 2, position: 0 }).returning()
    expect((await patch(world.essays.id, { unitId: unit!.id })).status).toBe(422)
    const outsider = await world.as('outsider')
    const [own] = await world.db.select().from(t.persons).where(eq(t.persons.email, email('outsider')))
    expect(own).toBeDefined()
    expect((await outsider.send('POST', `/api/activities/${world.essays.id}/copy`, { id: key(), seminarId: foreign!.id, week: null, asTemplate: false })).status).toBe(404)
    expect((await ines.send('POST', `/api/activities/${world.essays.id}/copy`, { id: key(), seminarId: foreign!.id, week: null, asTemplate: false })).status).toBe(404)
  })

  it('reckons held marks anew when the points change, and leaves returned letters as they were', async () => {
    const marks = () => world.db.select().from(t.marks).where(eq(t.marks.activityId, world.breakwater.id)).orderBy(t.marks.id)
    const before = await marks()
    await patch(world.breakwater.id, { points: 5000 })
    for (const after of await marks()) {
      const was = before.find(b => b.id === after.id)!
      expect(after.returned).toEqual(was.returned)
      expect(after.points).toBe(was.state === 'held' ? was.points! * 2 : was.points)
    }
    await patch(world.breakwater.id, { points: 2500 })
    expect((await marks()).map(m => m.points)).toEqual(before.map(b => b.points))
  })

  it('keeps marks under the version of the rubric they were given under', async () => {
    const rubric = await world.rubric('Seminar contribution')
    const library = (await ines.json<{ rubrics: Array<{ rubric: { id: string, version: number, criteria: Array<{ title: string, levels: Array<{ title: string, points: number, descriptor: string }> }> } }> }>('GET', `/api/seminars/${world.seminar.id}/library`)).body
    const { version, criteria } = library.rubrics.find(r => r.rubric.id === rubric.id)!.rubric
    const draft = { title: 'Seminar contribution', criteria: criteria.slice(0, 3).map(c => ({ title: `${c.title}, newly`, scope: 'own', weight: 1, suggestFrom: null, outcome: null, levels: c.levels.map(l => ({ title: l.title, points: l.points, pointsFrom: null, descriptor: l.descriptor })) })) }
    expect((await ines.json<{ version: number }>('PUT', `/api/rubrics/${rubric.id}`, { key: key(), baseVersion: version, rubric: draft })).body.version).toBe(version + 1)
    const record = async (who: string) => (await ines.json<{ rubric: { version: number }, mark: { points: number, criteriaLeft: number, state: string } }>('GET', `/api/activities/${world.breakwater.id}/records/${(await world.enrolment(who)).id}`)).body
    const held = await world.db.select({ who: t.marks.enrolmentId, points: t.marks.points }).from(t.marks).where(and(eq(t.marks.activityId, world.breakwater.id), eq(t.marks.state, 'held')))
    expect(held.length).toBeGreaterThan(3)
    for (const mark of held) {
      const { body } = await ines.json<Awaited<ReturnType<typeof record>>>('GET', `/api/activities/${world.breakwater.id}/records/${mark.who}`)
      expect(body).toMatchObject({ rubric: { version }, mark: { points: mark.points, criteriaLeft: 0 } })
    }
    expect((await record('kadri')).rubric.version).toBe(version + 1) // nothing given yet
    expect((await ines.send('PUT', `/api/rubrics/${rubric.id}`, { key: key(), baseVersion: version, rubric: draft })).status).toBe(409)
  })

  it('locks', async () => {
    await ines.send('PUT', `/api/activities/${world.essays.id}/locked`, { locked: true })
    expect((await patch(world.essays.id, { title: 'No' })).status).toBe(409)
    await ines.send('PUT', `/api/activities/${world.essays.id}/locked`, { locked: false })
    expect((await patch(world.essays.id, { title: 'Draft essays' })).status).toBe(200)
  })

  it('is for whom it says: others do not learn of it, and are counted nowhere', async () => {
    const [sectionB] = await world.db.select().from(t.sections).where(and(eq(t.sections.seminarId, world.seminar.id), eq(t.sections.title, 'Section B')))
    const { body: made } = await ines.json<{ id: string }>('POST', `/api/seminars/${world.seminar.id}/activities`, { id: key(), kind: 'discussion', week: 6, unitId: null, templateId: null })
    await patch(made.id, { title: 'For B alone', audience: { kind: 'sections', sectionIds: [sectionB!.id] } })
    const { version } = await view(made.id)
    expect((await ines.send('POST', `/api/activities/${made.id}/publish`, { key: key(), baseVersion: version, opens: 'now', tell: false })).status).toBe(200)
    const [liv, oona] = [await world.as('liv'), await world.as('oona')]
    expect((await liv.send('GET', `/api/activities/${made.id}`)).status).toBe(404)
    expect((await oona.send('GET', `/api/activities/${made.id}`)).status).toBe(200)
    for (const what of ['plan', 'week', 'find?q=alone']) {
      expect(await (await liv.send('GET', `/api/seminars/${world.seminar.id}/${what}`)).text()).not.toContain('For B alone')
      expect(await (await oona.send('GET', `/api/seminars/${world.seminar.id}/${what}`)).text()).toContain('For B alone')
    }
    const plan = (await ines.json<TermPlan>('GET', `/api/seminars/${world.seminar.id}/plan`)).body
    expect(Object.values(plan.activities.find(a => a.id === made.id)!.counts!).reduce((a, b) => a + b, 0)).toBe(12)
  })

  it('keeps prompts to come, hidden days and drafts from students', async () => {
    const liv = await world.as('liv')
    const [notebook] = await world.db.select().from(t.activities).where(eq(t.activities.title, 'Harbour notebook'))
    const prompts = await world.db.select().from(t.prompts).where(eq(t.prompts.activityId, notebook!.id))
    const seen = await (await liv.send('GET', `/api/activities/${notebook!.id}`)).text()
    expect(prompts.filter(p => p.releaseAt > NOW).length).toBeGreaterThan(0)
    for (const p of prompts) expect(seen.includes(p.html.slice(3, 30))).toBe(p.releaseAt <= NOW)
    await patch(world.dredge.id, { hiddenUntil: '2026-10-20T06:00:00.000Z' })
    const thread = (await liv.json<ThreadView>('GET', `/api/activities/${world.dredge.id}/contributions`)).body
    expect(thread.waiting).toBe(true)
    expect(thread.contributions.every(c => c.view === 'whole' && c.author.isMe)).toBe(true)
    expect(JSON.stringify((await liv.json('GET', `/api/seminars/${world.seminar.id}/find?q=quay`)).body)).not.toContain('Rasmus Okonjo in')
    await patch(world.dredge.id, { hiddenUntil: null })
  })

  it('finds only what its reader may read anyway', async () => {
    const [abena] = [await world.contribution('rasmus', world.dredge.id)]
    const phrase = abena.text.split(/\s+/).slice(0, 6).join(' ')
    const find = async (who: string) => JSON.stringify((await (await world.as(who)).json('GET', `/api/seminars/${world.seminar.id}/find?q=${encodeURIComponent(phrase)}`)).body)
    expect(await find('liv')).toContain(abena.id)
    expect(await find('paz')).not.toContain(abena.id) // has not written: nothing of others is open to them
    expect(await find('ines')).toContain(abena.id)
    const drafts = await world.db.select().from(t.contributions).where(eq(t.contributions.state, 'draft'))
    for (const draft of drafts.filter(d => d.words > 5)) {
      const own = draft.text.split(/\s+/).slice(0, 5).join(' ')
      expect(JSON.stringify((await ines.json('GET', `/api/seminars/${world.seminar.id}/find?q=${encodeURIComponent(own)}`)).body)).not.toContain(draft.id)
    }
  })
})

describe('telling students', () => {
  let world: World
  let ines: Client
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
  })
  afterAll(() => world.close())

  it('writes one mail to each who takes part and wants it at once, a notice to all, one mail a day to who wants that', async () => {
    const { body: before } = await ines.json<ComposerView>('GET', `/api/activities/${world.essays.id}/plan`)
    const publish = { key: key(), baseVersion: before.version, opens: 'now', tell: true }
    for (let i = 0; i < 2; i++) expect((await ines.send('POST', `/api/activities/${world.essays.id}/publish`, publish)).status).toBe(200)
    const mails = await until('23 mails', async () => { const { messages } = (await ines.json<Mailroom>('GET', '/api/mailroom')).body; return messages.length >= 23 && messages })
    expect(mails).toHaveLength(23)
    expect(new Set(mails.flatMap(m => m.to)).size).toBe(23)
    expect(mails.flatMap(m => m.to)).not.toContain(email('petra'))
    expect(mails[0]!.subject).toContain('“Draft essays” is open.')
    expect(mails[0]!.text).toMatch(/Writing until Sunday \d+ \w+,? 23:59/)
    expect(mails[0]!.text).toContain(`${world.server.address}/seminars/${world.seminar.id}/activities/${world.essays.id}`)
    const petra = await world.as('petra')
    expect((await petra.json<{ notices: unknown[] }>('GET', `/api/seminars/${world.seminar.id}/notices`)).body.notices).toHaveLength(1)
    expect(await mailDailyNotices(world.db, NOW)).toBe(1)
    expect(await mailDailyNotices(world.db, NOW)).toBe(0)
    await until('petra\'s mail of the day', async () => (await ines.json<Mailroom>('GET', '/api/mailroom')).body.messages.find(m => m.to.includes(email('petra'))))
  })

  it('opens what is scheduled when its time has come, once', async () => {
    await world.db.update(t.activities).set({ opensAt: new Date(NOW.getTime() - 60_000) }).where(eq(t.activities.id, world.pilot.id))
    const opened = await Promise.all([publishDue(world.db, NOW), publishDue(world.db, NOW)])
    expect(opened.reduce((a, b) => a + b, 0)).toBe(1)
    expect(await world.db.$count(t.notices, eq(t.notices.activityId, world.pilot.id))).toBe(24)
  })
})

describe('a mail server that is down', () => {
  let world: World
  beforeAll(async () => { world = await testWorld() })
  afterAll(() => world.close())

  it('delays mail and loses none: it sends each once when it is back', async () => {
    const port = await freePort()
    const down = await testServer(world.databaseUrl, { SMTP_URL: `smtp://127.0.0.1:${port}?ignoreTLS=true`, JOVREL_MAIL_RETRY_SECONDS: '1' })
    // the world's own server would deliver to its mailroom: this one is alone with what is written now
    await world.server.stop()
    const henrik = await new Client(down.address).signIn(email('ines'))
    const people = await world.db.select({ id: t.enrolments.id }).from(t.enrolments).innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId)).where(inArray(t.persons.email, [email('liv'), email('oona'), email('nico')]))
    expect((await henrik.json<{ invited: number }>('POST', `/api/seminars/${world.seminar.id}/people/invite`, { key: key(), enrolmentIds: people.map(p => p.id) })).body.invited).toBe(3)
    const waiting = () => world.db.select().from(t.mails).where(eq(t.mails.state, 'waiting'))
    await until('a first try', async () => (await waiting()).some(m => m.tries > 0))
    expect(await waiting()).toHaveLength(3)
    const came: string[] = []
    const smtp = new SMTPServer({ authOptional: true, disabledCommands: ['STARTTLS'], onData: (stream, session, done) => { stream.on('data', () => {}); stream.on('end', () => { came.push(session.envelope.rcptTo[0]!.address); done() }) } })
    await new Promise<void>(resolve => smtp.listen(port, '127.0.0.1', resolve))
    await until('all three mails', async () => (await waiting()).length === 0, 90)
    expect(came.sort()).toEqual([email('liv'), email('nico'), email('oona')])
    await new Promise<void>(resolve => smtp.close(() => resolve()))
    await down.stop()
  })
})

describe('dates', () => {
  let world: World
  let ines: Client
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
  })
  afterAll(() => world.close())
  const due = (feed: string, title: string) => [...feed.replace(/\r\n /g, '').matchAll(/BEGIN:VEVENT[\s\S]*?END:VEVENT/g)].map(m => m[0]).filter(e => e.includes(title)).map(e => ({ uid: /UID:(\S+)/.exec(e)![1]!, sequence: Number(/SEQUENCE:(\d+)/.exec(e)![1]), at: /DTSTART:(\S+)/.exec(e)![1]!.replace(/(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z/, '$1-$2-$3T$4:$5:$6Z') }))

  it('reach a calendar at local 23:59 on both sides of the end of daylight saving, move in it, and stop when its address is revoked', async () => {
    const liv = await world.as('liv')
    const { body } = await liv.json<{ calendarPath: string }>('POST', '/api/account/calendar')
    const feed = async () => (await world.nobody.send('GET', body.calendarPath)).text()
    const first = await feed()
    expect(first).toMatch(/^BEGIN:VCALENDAR\r\n/)
    expect(first).not.toContain('Draft essays') // a draft is nobody's date
    expect(wall(due(first, 'Should the harbour board dredge?')[0]!.at)).toBe('Thu 23:59')
    for (const event of due(first, 'City pages')) expect(wall(event.at)).toBe('Sun 23:59') // 25 October and 1 November
    const [before] = due(first, 'Should the harbour board dredge?')
    const plan = (await ines.json<TermPlan>('GET', `/api/seminars/${world.seminar.id}/plan`)).body.activities.find(a => a.id === world.dredge.id)!
    const move = (at: string) => new Date(Date.parse(at) + 86_400_000).toISOString()
    await ines.send('PUT', `/api/activities/${world.dredge.id}/schedule`, { key: key(), baseVersion: plan.version, opensAt: plan.opensAt, phases: plan.phases.map((p, i) => ({ ...p, startsAt: i === 0 ? p.startsAt : move(p.startsAt), endsAt: move(p.endsAt) })) })
    const [after] = due(await feed(), 'Should the harbour board dredge?')
    expect([after!.uid, wall(after!.at)]).toEqual([before!.uid, 'Fri 23:59'])
    expect(after!.sequence).toBeGreaterThan(before!.sequence)
    const extended = await world.enrolment('liv')
    await ines.send('PUT', `/api/activities/${world.dredge.id}/extensions/${extended.id}`, { dueAt: '2026-10-28T22:59:00Z', reason: 'ill' })
    expect(wall(due(await feed(), 'Should the harbour board dredge?')[1]!.at)).toBe('Wed 23:59')
    await liv.send('POST', '/api/account/calendar')
    expect((await world.nobody.send('GET', body.calendarPath)).status).toBe(404)
  })

  it('of a seminar copied for another term keep weekday, local time and teaching week over breaks', async () => {
    const id = key()
    await ines.send('POST', `/api/seminars/${world.seminar.id}/copy`, { id, code: 'HC 343', title: 'Harbour Cities again', firstDay: '2027-02-01', weeks: 13, breaks: [{ week: 9, title: 'Spring break' }] })
    const rows = async (seminarId: string) => world.db.select({ title: t.activities.title, name: t.phases.name, endsAt: t.phases.endsAt, state: t.activities.state }).from(t.phases).innerJoin(t.activities, eq(t.activities.id, t.phases.activityId)).where(eq(t.activities.seminarId, seminarId)).orderBy(t.activities.position, t.phases.position)
    const [old, copy] = [await rows(world.seminar.id), await rows(id)]
    expect(copy.map(r => [r.title, r.name])).toEqual(old.map(r => [r.title, r.name]))
    expect(copy.every(r => r.state === 'draft')).toBe(true)
    const weekOf = (at: Date, first: string) => Math.floor((Date.parse(new Intl.DateTimeFormat('en-CA', { timeZone: 'Europe/Amsterdam' }).format(at)) - Date.parse(first)) / (7 * 86_400_000)) + 1
    for (const [i, row] of copy.entries()) {
      expect(wall(row.endsAt)).toBe(wall(old[i]!.endsAt))
      const week = weekOf(old[i]!.endsAt, world.seminar.firstDay)
      expect(weekOf(row.endsAt, '2027-02-01')).toBe(week >= 9 ? week + 1 : week)
    }
    expect(await world.db.$count(t.contributions, eq(t.contributions.seminarId, id))).toBe(0)
    expect(await world.db.$count(t.enrolments, eq(t.enrolments.seminarId, id))).toBe(1)
  })
})

describe('the student\'s eye', () => {
  let world: World
  beforeAll(async () => { world = await testWorld() })
  afterAll(() => world.close())

  it('sees what a student sees, writes what only staff see, is marked and counted nowhere', async () => {
    const [ines, liv] = [await world.as('ines'), await world.as('liv')]
    const seminar = `/api/seminars/${world.seminar.id}`
    const counts = async () => (await liv.json<ThreadView>('GET', `/api/activities/${world.dredge.id}/contributions`)).body.contributions.length
    const before = await counts()
    const plan = async () => (await (await world.as('henrik')).json<TermPlan>('GET', `${seminar}/plan`)).body.activities.find(a => a.id === world.dredge.id)!.counts
    const stood = await plan()
    expect((await ines.send('PUT', `${seminar}/students-eye`, { on: true })).status).toBe(200)
    expect((await ines.json<{ role: string, studentsEye: boolean }>('GET', seminar)).body).toMatchObject({ role: 'student', studentsEye: true })
    expect((await ines.send('GET', `/api/activities/${world.essays.id}`)).status).toBe(404) // a draft
    expect((await ines.send('GET', `${seminar}/people`)).status).toBe(403)
    expect((await ines.json<ThreadView>('GET', `/api/activities/${world.dredge.id}/contributions`)).body).toMatchObject({ waiting: true, contributions: [] })
    expect((await ines.send('POST', `/api/activities/${world.dredge.id}/contributions`, { key: key(), parentId: null, doc: doc(`Only a trial. ${words(210)}`) })).status).toBe(200)
    expect((await ines.json<ThreadView>('GET', `/api/activities/${world.dredge.id}/contributions`)).body.contributions.length).toBe(before + 1)
    expect(await counts()).toBe(before)
    expect(JSON.stringify((await liv.json('GET', `${seminar}/find?q=trial`)).body)).not.toContain('trial')
    await ines.send('PUT', `${seminar}/students-eye`, { on: false })
    expect(await plan()).toEqual(stood)
    const desk = (await ines.json<{ students: Array<{ id: string, practice: boolean }>, counts: unknown }>('GET', `/api/activities/${world.dredge.id}/desk`)).body
    const practice = desk.students.find(s => s.practice)!
    expect(desk.counts).toEqual(stood)
    expect((await ines.send('GET', `/api/activities/${world.dredge.id}/records/${practice.id}`)).status).toBe(200)
    expect((await liv.send('PUT', `${seminar}/students-eye`, { on: true })).status).toBe(403)
  })
})

describe('files of a brief', () => {
  let world: World
  beforeAll(async () => { world = await testWorld() })
  afterAll(() => world.close())

  it('are what their bytes say, reach members only, and are never run', async () => {
    const ines = await world.as('ines')
    const png = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64')
    const up = (name: string, bytes: Buffer) => ines.json<{ url: string, type: string }>('POST', `/api/seminars/${world.seminar.id}/files`, { id: key(), name, base64: bytes.toString('base64'), transcript: null })
    const { body } = await up('map.html', png)
    expect(body.type).toBe('image/png')
    for (const evil of ['<html><script>alert(1)</script>', '<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)"/>', 'MZ']) expect((await up('map.png', Buffer.from(evil))).status).toBe(422)
    const got = await (await world.as('liv')).send('GET', body.url)
    expect([got.status, got.headers.get('content-type'), got.headers.get('x-content-type-options')]).toEqual([200, 'image/png', 'nosniff'])
    expect(got.headers.get('content-security-policy')).toContain('sandbox')
    expect((await world.nobody.send('GET', body.url)).status).toBe(401)
    expect((await (await world.as('outsider')).send('GET', body.url)).status).toBe(404)
    const part = await ines.send('GET', body.url, undefined, { range: 'bytes=0-3' })
    expect([part.status, part.headers.get('content-range'), (await part.arrayBuffer()).byteLength]).toEqual([206, `bytes 0-3/${png.length}`, 4])
    const image = { type: 'doc', content: [{ type: 'image', attrs: { src: body.url, alt: 'A map' } }, { type: 'image', attrs: { src: 'https://elsewhere.example/x.png' } }, { type: 'paragraph', content: [{ type: 'inlineMath', attrs: { latex: 'd_0 <script>' } }] }] }
    const { body: before } = await ines.json<ComposerView>('GET', `/api/activities/${world.essays.id}/plan`)
    expect((await ines.send('PATCH', `/api/activities/${world.essays.id}/plan`, { key: key(), baseVersion: before.version, change: { brief: image }, tell: false })).status).toBe(200)
    const [row] = await world.db.select().from(t.activities).where(eq(t.activities.id, world.essays.id))
    expect(row!.briefHtml).toContain(`<img src="${body.url}" alt="A map"`)
    expect(row!.briefHtml).not.toMatch(/elsewhere|<script/)
    expect(row!.briefHtml).toContain('<math')
  })
})
