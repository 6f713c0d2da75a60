import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import type { RichNode } from '#core/contributing/richText'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import * as t from '#server/database/schema'
import { loadRubric } from '#server/services/rubrics/loadRubrics'
import { returnMark } from '#server/services/marking/returnMark'
import { saveMark } from '#server/services/marking/saveMark'
import type { MarkWrite } from '#shared/marking/desk'
import { people } from './people'
import {
  arriveLetters,
  ownSteps,
  phrases,
  tollrollLetters,
  tollrollSteps,
  wallsLetters,
} from './returnedMarks'

type When = readonly [week: number, weekday: number, time: string]

/** Activities that lie behind the seminar, marked and returned as on the desk, by the same code; and what is kept for reuse. */
export class DemoReturns {
  constructor(
    private readonly db: Database,
    private readonly seminarId: string,
    private readonly enrolment: ReadonlyMap<string, string>,
    private readonly activity: ReadonlyMap<string, string>,
    private readonly at: (when: When) => Date,
  ) {}

  async all(): Promise<void> {
    const students = people.filter(p => p.role === 'student')
    const arrive = await this.actorIn('arrive')
    for (const s of students)
      await this.give(
        arrive,
        s.key,
        { override: { points: 100, reason: '' } },
        [`Dear ${s.given},`, arriveLetters[s.key]!],
        [2, 3, '17:10'],
      )
    const toll = await this.actorIn('tollroll')
    // Henrik reads section B
    const tollOfHenrik = await this.actorIn('tollroll', 'henrik')
    const contribution = (await loadRubric(this.db, toll.activity.rubricVersionId))!
    for (const [i, s] of students.entries()) {
      const steps = contribution.criteria.map((c, k) => ({
        criterionId: c.id,
        levelId: c.levels[tollrollSteps[i % tollrollSteps.length]![k]!]!.id,
      }))
      await this.give(
        s.section === 'B' ? tollOfHenrik : toll,
        s.key,
        { steps },
        tollrollLetters[s.key] ? [`Dear ${s.given},`, tollrollLetters[s.key]!] : [],
        [4, 5, '16:20'],
      )
    }
    await this.walls()
    await this.db.insert(t.phrases).values(
      phrases.map(([text, criterion, uses], i) => ({
        seminarId: this.seminarId,
        ownerId: this.enrolment.get('ines')!,
        text,
        criterion,
        uses,
        lastUsedAt: this.at([6, 2, `${String(9 + (i % 8)).padStart(2, '0')}:30`]),
        madeAt: this.at([1, 2, '09:00']),
      })),
    )
    // those letters were told of when they came back
    await this.db.execute(
      `update marks set told_at = returned_at where told_at is null and returned_at is not null`,
    )
  }

  private async walls() {
    const [actor, henrik] = [await this.actorIn('walls'), await this.actorIn('walls', 'henrik')]
    const rubric = (await loadRubric(this.db, actor.activity.rubricVersionId))!
    const { audience } = actor.activity
    if (audience.kind !== 'groups') throw new Error('demo: the walls are written in groups')
    const members = await this.db
      .select({ id: t.groupMembers.enrolmentId, title: t.groups.title })
      .from(t.groupMembers)
      .innerJoin(t.groups, eq(t.groups.id, t.groupMembers.groupId))
      .where(eq(t.groupMembers.groupPlanId, audience.groupPlanId))
      .orderBy(t.groups.position)
    const keyOf = new Map([...this.enrolment].map(([key, id]) => [id, key]))
    for (const [i, member] of members
      .sort((a, b) => a.title.localeCompare(b.title) || keyOf.get(a.id)!.localeCompare(keyOf.get(b.id)!))
      .entries()) {
      const group = wallsLetters[member.title]!
      const own = [...ownSteps[i % ownSteps.length]!]
      const steps = rubric.criteria.map(c => ({
        criterionId: c.id,
        levelId: c.levels[c.scope === 'group' ? group.step : (own.shift() ?? 1)]!.id,
      }))
      await this.give(
        people.find(p => p.key === keyOf.get(member.id))!.section === 'B' ? henrik : actor,
        keyOf.get(member.id)!,
        { steps },
        [`Dear ${people.find(p => p.key === keyOf.get(member.id))!.given},`, group.letter],
        [5, 5, '15:40'],
      )
    }
  }

  private actorIn(key: string, by = 'ines') {
    return actorIn(this.db, this.seminarId, this.enrolment.get(by)!, this.activity.get(key)!)
  }

  private async give(
    actor: Actor & { activity: ActivityRow },
    student: string,
    write: Partial<MarkWrite>,
    lines: readonly string[],
    when: When,
  ) {
    const id = this.enrolment.get(student)!
    const now = this.at(when)
    const [before] = await this.db
      .select({ version: t.marks.version })
      .from(t.marks)
      .where(and(eq(t.marks.enrolmentId, id), eq(t.marks.activityId, actor.activity.id)))
    const letter: RichNode = {
      type: 'doc',
      content:
        lines.length > 0
          ? lines.map(text => ({ type: 'paragraph', content: [{ type: 'text', text }] }))
          : [{ type: 'paragraph' }],
    }
    const saved = await saveMark(
      this.db,
      actor,
      id,
      {
        key: v7(),
        baseVersion: before?.version ?? 0,
        steps: [],
        citations: [],
        letter,
        markerNote: '',
        lateWaived: false,
        excusedFrom: [],
        override: null,
        files: [],
        ...write,
      },
      now,
    )
    await returnMark(this.db, actor, id, v7(), saved.version, now)
  }
}

/** Somebody of the seminar at one of its activities, as routes would have them. */
export async function actorIn(
  db: Database,
  seminarId: string,
  enrolmentId: string,
  activityId: string,
): Promise<Actor & { activity: ActivityRow }> {
  const [activity] = await db.select().from(t.activities).where(eq(t.activities.id, activityId))
  const [seminar] = await db.select().from(t.seminars).where(eq(t.seminars.id, seminarId))
  const [row] = await db
    .select({ enrolment: t.enrolments, person: t.persons })
    .from(t.enrolments)
    .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
    .where(eq(t.enrolments.id, enrolmentId))
  return { ...row!, seminar: seminar!, activity: activity!, studentsEye: false }
}
