import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { plainText, paragraphs, type RichNode } from '#core/contributing/richText'
import { pointsOf } from '#core/marking/rubric/rubricDraft'
import { makeGroups } from '#core/people/makeGroups'
import { calculateMark } from '#core/marking/calculateMark'
import { dayAfter, localDay, localInstant } from '#core/planning/week'
import { USUAL_LEXICON } from '#core/contributing/lexicon/lexiconSettings'
import { USUAL_WIKI } from '#core/contributing/wiki/wikiSettings'
import { USUAL_REVIEW } from '#core/contributing/review/reviewSettings'
import { KINDS } from '#core/contributing/kinds'
import { hashPassword, OPEN_COST } from '#server/access/password'
import { rowsOf, type Database, type Db } from '#server/database/client'
import * as t from '#server/database/schema'
import { writeCriteria } from '#server/services/marking/rubrics'
import { numberAll } from '#server/services/contributing/numbering'
import { renderDoc } from '#server/services/contributing/renderDoc'
import { activities, categories, rubric, units, type DemoActivity } from './activities'
import { demoGroupPlans, learningOutcomes, libraryRubrics } from './rubrics'
import { demoClosing } from './closing'
import { demoMessages } from './messages'
import { DemoReviews, handedIn } from './reviews'
import { DemoReturns } from './returns'
import { TERM_CATEGORIES, terms } from './texts/terms'
import { DemoReadings } from './readings'
import { DemoWikis } from './wikis'
import { marks, type DemoMark } from './marks'
import { DEMO_PASSWORD, people } from './people'
import { breakwater } from './texts/breakwater'
import { arrive } from './texts/arrive'
import { dredge } from './texts/dredge'
import { exitNote } from './texts/exitNote'
import { notebook } from './texts/notebook'
import { quay } from './texts/quay'
import type { DemoText } from './texts/text'
import { letterDoc, withFormulas } from './richDocs'

const TIME_ZONE = 'Europe/Amsterdam'
const WEEK_NOW = 6

/** Monday of the term's first week, placed so that `now` lies in week 6. */
export function firstDayFor(now: Date): string {
  const today = localDay(now, TIME_ZONE)
  const weekday = (new Date(`${today}T12:00:00Z`).getUTCDay() + 6) % 7
  return dayAfter(today, -weekday - 7 * (WEEK_NOW - 1))
}

/** Fills an empty database with the Harbour Cities seminar; leaves one that has it alone. */
export async function seedDemo(db: Database, now: Date): Promise<void> {
  const [there] = await db.select({ id: t.seminars.id }).from(t.seminars).limit(1)
  if (there) return
  const passwordHash = await hashPassword(DEMO_PASSWORD, OPEN_COST)
  await db.transaction(tx => new Seed(tx, firstDayFor(now), passwordHash).all())
}

/** When the demo's clock starts: Wednesday of week 6, 10:20, or a minute after the last thing anyone did. */
export async function demoClock(db: Db): Promise<Date> {
  const [seminar] = await db.select().from(t.seminars).limit(1)
  const start = localInstant(dayAfter(seminar!.firstDay, 7 * (WEEK_NOW - 1) + 2), '10:20', seminar!.timeZone)
  const [last] = await rowsOf<{ at: Date | string | null }>(
    db,
    sql`select greatest((select max(saved_at) from contributions), (select max(saved_at) from marks), (select max(seen_until) from visits)) as at`,
  )
  return new Date(Math.max(start.getTime(), last?.at ? new Date(last.at).getTime() + 60_000 : 0))
}

/** One run of the seed: keys of the demo's texts to ids of the database. */
class Seed {
  private seminarId = ''
  private readonly enrolment = new Map<string, string>()
  private readonly activity = new Map<string, string>()
  private readonly written = new Map<string, { id: string; text: string }>()
  private readonly prompts = new Map<string, string[]>() // ids in their order, by activity
  private rubricVersionId = ''
  private readonly otherRubrics = new Map<string, { versionId: string; points: number }>()
  private readonly groupPlan = new Map<string, string>()
  private criteria: Array<{
    id: string
    max: number
    levels: Array<{ id: string; points: number; title: string; descriptor: string }>
  }> = []

  constructor(
    private readonly db: Db,
    private readonly firstDay: string,
    private readonly passwordHash: string,
  ) {}

  async all(): Promise<void> {
    await this.seminarAndPeople()
    await this.rubric()
    await this.library()
    await this.groupPlans()
    await this.activities()
    await this.contributions('breakwater', breakwater)
    await this.contributions('dredge', dredge)
    await this.contributions('arrive', arrive)
    await this.contributions('notebook', notebook)
    await this.contributions('quay', quay)
    await this.contributions('stair', exitNote)
    await this.contributions('reports', handedIn)
    const reviewed = new DemoReviews(
      this.db as Database,
      this.seminarId,
      this.enrolment,
      this.activity,
      this.written,
      spec => this.at(spec),
    )
    await reviewed.written()
    await this.terms()
    await numberAll(this.db)
    await new DemoWikis(this.db as Database, this.seminarId, this.enrolment, this.activity, spec =>
      this.at(spec),
    ).all()
    await new DemoReadings(this.db as Database, this.seminarId, this.enrolment, this.activity, spec =>
      this.at(spec),
    ).all()
    await this.visits()
    for (const mark of marks) await this.mark(mark)
    await reviewed.moderated()
    await new DemoReturns(this.db as Database, this.seminarId, this.enrolment, this.activity, spec =>
      this.at(spec),
    ).all()
    for (const part of [demoClosing, demoMessages])
      await part(this.db as Database, this.seminarId, this.enrolment, this.activity, spec => this.at(spec))
  }

  private at([week, weekday, time]: readonly [number, number, string]): Date {
    return localInstant(dayAfter(this.firstDay, 7 * (week - 1) + weekday - 1), time, TIME_ZONE)
  }

  private async seminarAndPeople() {
    const [seminar] = await this.db
      .insert(t.seminars)
      .values({
        code: 'HC 342',
        title: 'Harbour Cities, 1500–1800',
        college: 'Northmere College',
        timeZone: TIME_ZONE,
        firstDay: this.firstDay,
        weeks: 12,
      })
      .returning()
    this.seminarId = seminar!.id
    const sections = await this.db
      .insert(t.sections)
      .values(
        ['A', 'B'].map(title => ({
          seminarId: this.seminarId,
          title: `Section ${title}`,
          position: title === 'A' ? 0 : 1,
        })),
      )
      .returning()
    for (const p of people) {
      const [person] = await this.db
        .insert(t.persons)
        .values({
          email: `${p.key}@northmere.example`,
          name: p.name,
          givenName: p.given,
          familyName: p.family,
          passwordHash: this.passwordHash,
          foundsSeminars: p.key === 'ines',
          mailChoice: p.key === 'petra' ? ('daily' as const) : ('atOnce' as const),
        })
        .returning()
      const [enrolment] = await this.db
        .insert(t.enrolments)
        .values({
          seminarId: this.seminarId,
          personId: person!.id,
          role: p.role,
          studentNumber: p.role === 'student' ? `N${String(4100 + people.indexOf(p))}` : null,
          sectionId: p.section ? sections[p.section === 'A' ? 0 : 1]!.id : null,
        })
        .returning()
      this.enrolment.set(p.key, enrolment!.id)
    }
  }

  private async rubric() {
    const [head] = await this.db
      .insert(t.rubrics)
      .values({ seminarId: this.seminarId, title: rubric.title })
      .returning()
    const [version] = await this.db
      .insert(t.rubricVersions)
      .values({ seminarId: this.seminarId, rubricId: head!.id, version: 1 })
      .returning()
    this.rubricVersionId = version!.id
    for (const [position, c] of rubric.criteria.entries()) {
      const [criterion] = await this.db
        .insert(t.rubricCriteria)
        .values({
          seminarId: this.seminarId,
          rubricVersionId: version!.id,
          position,
          title: c.title,
          max: c.max * 100,
          suggestFrom: c.suggestFrom,
        })
        .returning()
      const levels = await this.db
        .insert(t.rubricLevels)
        .values(
          c.levels.map(([points, title, descriptor], i) => ({
            seminarId: this.seminarId,
            criterionId: criterion!.id,
            position: i,
            title,
            points: points * 100,
            descriptor,
          })),
        )
        .returning()
      this.criteria.push({ id: criterion!.id, max: c.max * 100, levels })
    }
  }

  private async activities() {
    const unitRows = await this.db
      .insert(t.units)
      .values(
        units.map((u, position) => ({
          seminarId: this.seminarId,
          title: u.title,
          fromWeek: u.from,
          toWeek: u.to,
          position,
        })),
      )
      .returning()
    const categoryRows = await this.db
      .insert(t.categories)
      .values(
        categories.map(([title, weightPercent], position) => ({
          seminarId: this.seminarId,
          title,
          weightPercent,
          position,
        })),
      )
      .returning()
    for (const [position, a] of activities.entries()) {
      await this.oneActivity(
        a,
        position,
        a.unit === null ? null : unitRows[a.unit]!.id,
        categoryRows.find(c => c.title === a.category)!.id,
      )
    }
    // Jonas asked in time
    await this.db.insert(t.extensions).values({
      seminarId: this.seminarId,
      activityId: this.activity.get('breakwater')!,
      enrolmentId: this.enrolment.get('jonas')!,
      dueAt: this.at([6, 7, '23:59']),
      reason: 'away for a funeral, agreed on Friday',
    })
  }

  /** The clip that ships with the demo, with its transcript, shown in a brief. */
  private async clip(): Promise<RichNode> {
    const folder = join(import.meta.dirname, 'files')
    const bytes = readFileSync(join(folder, 'harbour-mouth.webm'))
    const [file] = await this.db
      .insert(t.files)
      .values({
        seminarId: this.seminarId,
        madeBy: this.enrolment.get('ines')!,
        name: 'harbour-mouth.webm',
        type: 'video/webm',
        size: bytes.length,
        transcript: readFileSync(join(folder, 'harbour-mouth.vtt'), 'utf8'),
        bytes,
      })
      .returning()
    return {
      type: 'recording',
      attrs: { src: `/api/files/${file!.id}`, name: 'harbour-mouth.webm', type: 'video/webm' },
    }
  }

  private async oneActivity(a: DemoActivity, position: number, unitId: string | null, categoryId: string) {
    const brief = a.clip ? { ...a.brief, content: [...(a.brief.content ?? []), await this.clip()] } : a.brief
    const [row] = await this.db
      .insert(t.activities)
      .values({
        seminarId: this.seminarId,
        unitId,
        categoryId,
        kind: a.kind,
        title: a.title,
        summary: a.summary,
        brief,
        briefHtml: renderDoc(brief).html,
        state: a.state,
        settings: {
          writeFirst: a.writeFirst,
          editMinutes: 30,
          ...a.talk,
          ...(a.kind === 'review' && { review: { ...USUAL_REVIEW, ...a.review } }),
          ...(a.wiki && { wiki: { ...USUAL_WIKI, ...a.wiki } }),
          ...(a.lexicon && { lexicon: { ...USUAL_LEXICON, ...a.lexicon } }),
        },
        opensAt: this.at(a.opens),
        lateRule: { kind: 'none' },
        ...this.markedBy(a),
        starter: a.starter ?? null,
        starterHtml: a.starter ? renderDoc(a.starter).html : null,
        publishedAt: a.state === 'published' ? this.at(a.opens) : null,
        audience: a.groups
          ? { kind: 'groups', groupPlanId: this.groupPlan.get(a.groups)!, groupIds: [] }
          : { kind: 'everyone' },
        position,
      })
      .returning()
    this.activity.set(a.key, row!.id)
    const ids = { seminarId: this.seminarId, activityId: row!.id }
    await this.db.insert(t.phases).values(
      a.phases.map(([name, from, to], i) => ({
        ...ids,
        name,
        startsAt: this.at(from),
        endsAt: this.at(to),
        position: i,
      })),
    )
    if (a.rules.length > 0)
      await this.db.insert(t.expectations).values(a.rules.map((rule, i) => ({ ...ids, rule, position: i })))
    if (a.prompts)
      this.prompts.set(
        a.key,
        (
          await this.db
            .insert(t.prompts)
            .values(
              a.prompts.map(([at, words], i) => ({
                ...ids,
                position: i,
                doc: paragraphs(words),
                html: renderDoc(paragraphs(words)).html,
                releaseAt: this.at(at),
              })),
            )
            .returning()
        ).map(p => p.id),
      )
  }

  /** Points, scale and rubric of an activity. */
  private markedBy(a: DemoActivity) {
    if (!a.marked && a.rubric)
      return {
        points: null,
        scale: 'none' as const,
        rubricVersionId: this.otherRubrics.get(a.rubric)!.versionId,
      }
    if (!a.marked)
      return {
        points: a.scale === 'complete' ? 100 : null,
        scale: a.scale ?? ('none' as const),
        rubricVersionId: null,
      }
    const other = a.rubric ? this.otherRubrics.get(a.rubric)! : null
    return {
      points: other?.points ?? 2500,
      scale: 'points' as const,
      rubricVersionId: other?.versionId ?? this.rubricVersionId,
      ...(a.pointStep && { pointStep: a.pointStep }),
    }
  }

  /** The rest of the library: rubrics, learning outcomes, a scale of letters, a joining code. */
  private async library() {
    const ids = { seminarId: this.seminarId }
    await this.db
      .insert(t.outcomes)
      .values(learningOutcomes.map((o, position) => ({ ...ids, ...o, position })))
    // what the discussions' rubric is evidence of
    for (const [title, identifier] of [
      ['Use of evidence', 'hc-2'],
      ['Builds on others', 'hc-3'],
      ['Clarity of argument', 'hc-4'],
    ] as const)
      await this.db.execute(
        sql`update rubric_criteria set outcome_id = (select id from outcomes where identifier = ${identifier}) where rubric_version_id = ${this.rubricVersionId} and title = ${title}`,
      )
    for (const draft of libraryRubrics) {
      const [head] = await this.db
        .insert(t.rubrics)
        .values({ ...ids, title: draft.title })
        .returning()
      const [version] = await this.db
        .insert(t.rubricVersions)
        .values({ ...ids, rubricId: head!.id, version: 1 })
        .returning()
      await writeCriteria(this.db, this.seminarId, version!.id, draft)
      this.otherRubrics.set(draft.title, { versionId: version!.id, points: pointsOf(draft) })
    }
    await this.db.insert(t.gradingScales).values({
      ...ids,
      title: 'Letters',
      bands: [
        { letter: 'A', fromPercent: 90 },
        { letter: 'B', fromPercent: 80 },
        { letter: 'C', fromPercent: 70 },
        { letter: 'D', fromPercent: 60 },
        { letter: 'F', fromPercent: 0 },
      ],
    })
    await this.db.insert(t.joiningCodes).values({
      ...ids,
      code: 'KELP-4QX',
      role: 'student',
      expiresAt: this.at([7, 7, '23:59']),
      most: 30,
      used: 3,
      madeAt: this.at([1, 1, '09:00']),
    })
  }

  private async groupPlans() {
    for (const [position, plan] of demoGroupPlans.entries()) {
      const id = (key: string) => this.enrolment.get(key)!
      const rules = {
        by: plan.by,
        count: plan.count,
        seed: plan.seed,
        mixSections: true,
        together: plan.together.map(set => set.map(id)),
        apart: plan.apart.map(set => set.map(id)),
      }
      const students = people.filter(p => p.role === 'student')
      // dealt by names, so that the groups are the same in every demo, whatever the ids
      const dealt = makeGroups(
        students.map(p => ({ id: p.key, sectionId: p.section })),
        { ...rules, together: plan.together, apart: plan.apart },
      )
      if (dealt.kind !== 'made') throw new Error(`demo: the groups of ${plan.title} contradict each other`)
      const [row] = await this.db
        .insert(t.groupPlans)
        .values({
          seminarId: this.seminarId,
          title: plan.title,
          rules,
          position,
          madeAt: this.at([2, 1, '09:00']),
        })
        .returning()
      this.groupPlan.set(plan.key, row!.id)
      for (const [i, members] of dealt.groups.entries()) {
        const round = Math.floor(i / plan.topics.length)
        const [group] = await this.db
          .insert(t.groups)
          .values({
            seminarId: this.seminarId,
            groupPlanId: row!.id,
            title: `${plan.topics[i % plan.topics.length]}${round > 0 ? ` ${round + 1}` : ''}`,
            position: i,
          })
          .returning()
        await this.db.insert(t.groupMembers).values(
          members.map(key => ({
            seminarId: this.seminarId,
            groupPlanId: row!.id,
            groupId: group!.id,
            enrolmentId: id(key),
            since: this.at([2, 1, '09:00']),
          })),
        )
      }
    }
  }

  /** Texts in the order they were written, so that what is answered is always there. */
  private async contributions(activityKey: string, texts: readonly DemoText[]) {
    const kind = KINDS[activities.find(a => a.key === activityKey)!.kind]
    for (const text of [...texts].sort((a, b) => this.at(a.at).getTime() - this.at(b.at).getTime())) {
      const at = this.at(text.at)
      const parent = text.answers ? this.require(text.answers, text.id) : null
      const rendered = renderDoc(withFormulas(paragraphs(text.text)))
      if (parent && text.takesUp && !parent.text.includes(text.takesUp))
        throw new Error(`demo: ${text.id} takes up words that ${text.answers} does not have`)
      const draftKey = () => {
        if (text.prompt) return this.prompts.get(activityKey)![text.prompt - 1]!
        if (text.draft && text.title) return text.id
        return ''
      }
      const [row] = await this.db
        .insert(t.contributions)
        .values({
          seminarId: this.seminarId,
          activityId: this.activity.get(activityKey)!,
          authorId: this.enrolment.get(text.by)!,
          type: parent ? kind.answerType! : kind.entryType,
          parentId: parent?.id ?? null,
          state: text.draft ? 'draft' : 'shown',
          promptId: text.prompt ? this.prompts.get(activityKey)![text.prompt - 1]! : null,
          slot: draftKey(),
          figures: text.file ? 1 : 0,
          ...rendered,
          sentences: undefined,
          detail: {
            ...(parent &&
              text.takesUp && {
                takesUp: { contributionId: parent.id, exact: text.takesUp, prefix: '', suffix: '' },
              }),
            ...(text.title && { title: text.title }),
          },
          madeAt: at,
          savedAt: at,
          shownAt: text.draft ? null : at,
        } as typeof t.contributions.$inferInsert)
        .returning()
      this.written.set(text.id, { id: row!.id, text: rendered.text })
      if (text.file) await this.picture(text.file, row!.id, this.enrolment.get(text.by)!)
      if (text.nods)
        await this.db.insert(t.nods).values(
          text.nods.map(key => ({
            seminarId: this.seminarId,
            contributionId: row!.id,
            enrolmentId: this.enrolment.get(key)!,
            madeAt: at,
          })),
        )
    }
  }

  /** The class's own terms, with what was said about them; some wait to be shown. */
  private async terms() {
    const ids = { seminarId: this.seminarId, activityId: this.activity.get('terms')! }
    for (const {
      by,
      at: when,
      term,
      forms = [],
      category,
      sources = '',
      part,
      waits,
      file,
      text,
      comments = [],
    } of terms) {
      const at = this.at(when)
      const rendered = renderDoc(paragraphs(text))
      const detail = {
        title: term,
        term: {
          term,
          forms,
          category: category === null ? null : TERM_CATEGORIES[category]!,
          sources,
          whole: !part,
        },
      }
      const [row] = await this.db
        .insert(t.contributions)
        .values({
          ...ids,
          authorId: this.enrolment.get(by)!,
          type: 'term',
          state: waits ? 'awaitingApproval' : 'shown',
          slot: term,
          ...rendered,
          sentences: undefined,
          detail,
          figures: file ? 1 : 0,
          madeAt: at,
          savedAt: at,
          shownAt: at,
        } as typeof t.contributions.$inferInsert)
        .returning()
      if (file) await this.picture(file, row!.id, this.enrolment.get(by)!)
      for (const [author, said, words] of comments) {
        const spoken = this.at(said)
        await this.db.insert(t.contributions).values({
          ...ids,
          authorId: this.enrolment.get(author)!,
          type: 'comment',
          state: 'shown',
          parentId: row!.id,
          ...renderDoc(paragraphs(words)),
          sentences: undefined,
          madeAt: spoken,
          savedAt: spoken,
          shownAt: spoken,
        } as typeof t.contributions.$inferInsert)
      }
    }
  }

  /** A drawn picture that comes with a contribution. */
  private async picture(name: string, contributionId: string, madeBy: string) {
    const bytes = readFileSync(join(import.meta.dirname, 'files', name))
    const [file] = await this.db
      .insert(t.files)
      .values({ seminarId: this.seminarId, madeBy, name, type: 'image/png', size: bytes.length, bytes })
      .returning()
    await this.db
      .insert(t.contributionFiles)
      .values({ seminarId: this.seminarId, contributionId, fileId: file!.id, position: 0 })
  }

  private async visits() {
    const seen = (who: string, key: string, at: readonly [number, number, string]) => ({
      seminarId: this.seminarId,
      activityId: this.activity.get(key)!,
      enrolmentId: this.enrolment.get(who)!,
      seenUntil: this.at(at),
    })
    await this.db
      .insert(t.visits)
      .values([
        seen('liv', 'dredge', [6, 3, '07:30']),
        seen('ines', 'dredge', [6, 3, '08:20']),
        seen('mireille', 'dredge', [6, 3, '08:05']),
        seen('rasmus', 'dredge', [6, 3, '09:41']),
        seen('liv', 'breakwater', [6, 1, '09:00']),
        seen('ines', 'breakwater', [6, 2, '17:00']),
        seen('liv', 'quay', [6, 2, '09:00']),
        seen('ines', 'quay', [6, 1, '08:00']),
        seen('ines', 'notebook', [6, 2, '18:00']),
      ])
    // up to which place each had read by then
    await this.db.execute(
      sql`update visits v set seen_seq = coalesce((select max(c.seq) from contributions c where c.activity_id = v.activity_id and c.shown_at <= v.seen_until), 0)`,
    )
  }

  private async mark(m: DemoMark) {
    const by = m.letter.at(-1)?.[1].includes('Henrik') ? 'henrik' : 'ines'
    const steps = m.steps.map((step, i) => (step === null ? null : this.criteria[i]!.levels[step]!))
    const total = calculateMark(
      {
        criteria: this.criteria.map((c, i) => ({
          criterionId: c.id,
          weight: 1,
          max: c.max,
          points: steps[i]?.points ?? null,
        })),
        combine: null,
        late: { lateness: null, rule: { kind: 'none' }, waived: false },
        override: null,
      },
      { max: 2500, step: 50 },
    )
    const letter = letterDoc(m)
    const savedAt = this.at(m.state === 'returned' ? [6, 2, '16:40'] : [6, 3, '09:10'])
    const cited = m.cites.map(cite => ({
      criterionId: this.criteria[cite.criterion]!.id,
      contributionId: this.require(cite.text, m.student).id,
      exact: cite.exact,
      start: this.require(cite.text, m.student).text.indexOf(cite.exact),
    }))
    for (const cite of cited)
      if (cite.start < 0) throw new Error(`demo: "${cite.exact}" is not in what ${m.student} wrote`)
    const returned: t.ReturnedLetter | null =
      m.state !== 'returned'
        ? null
        : {
            html: renderDoc(letter).html,
            points: total.points!,
            max: 2500,
            by: people.find(p => p.key === by)!.name,
            rubric: rubric.title,
            criteria: this.criteria.map((c, i) => ({
              id: c.id,
              title: rubric.criteria[i]!.title,
              points: steps[i]!.points,
              max: c.max,
              levelTitle: steps[i]!.title,
              descriptor: steps[i]!.descriptor,
              levels: c.levels.map(l => l.points),
            })),
            citations: cited.map((c, i) => ({ number: i + 1, ...c })),
          }
    const [row] = await this.db
      .insert(t.marks)
      .values({
        seminarId: this.seminarId,
        activityId: this.activity.get('breakwater')!,
        enrolmentId: this.enrolment.get(m.student)!,
        rubricVersionId: this.rubricVersionId,
        state: m.state,
        points: total.left === 0 ? total.points : null,
        letter,
        letterText: plainText(letter),
        markerNote: m.note ?? '',
        markedBy: this.enrolment.get(by)!,
        savedAt,
        heldAt: m.state === 'open' ? null : savedAt,
        returnedAt: m.state === 'returned' ? savedAt : null,
        toldAt: m.state === 'returned' ? savedAt : null,
        returned,
      })
      .returning()
    const ids = { seminarId: this.seminarId, markId: row!.id }
    await this.db
      .insert(t.criterionMarks)
      .values(
        steps.flatMap((level, i) =>
          level
            ? [{ ...ids, criterionId: this.criteria[i]!.id, levelId: level.id, points: level.points }]
            : [],
        ),
      )
    if (cited.length > 0)
      await this.db.insert(t.citations).values(cited.map((c, position) => ({ ...ids, ...c, position })))
  }

  private require(key: string, by: string) {
    const found = this.written.get(key)
    if (!found) throw new Error(`demo: ${by} needs ${key}, which is not written yet`)
    return found
  }
}
