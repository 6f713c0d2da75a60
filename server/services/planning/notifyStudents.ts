import { closesAt, isWorkingPhase } from '#core/planning/schedule'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import type { Seminar } from '#server/access/seminar'
import { participants } from '#server/services/planning/participants'
import { localTime } from '#core/planning/localTime'
import { tell } from '#server/services/messaging/notices'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import { loadPlan } from './activityPlan'
import { phaseWord } from './scheduleWords'

const pathOf = (a: Pick<ActivityRow, 'id'>) => (seminarId: string) =>
  `/seminars/${seminarId}/activities/${a.id}`

/** Tells those who take part that an activity is there, with its due times. */
export async function notifyOfPublishing(
  db: Db,
  seminar: Seminar,
  activity: ActivityRow,
  now: Date,
): Promise<number> {
  const plan = await loadPlan(db, activity)
  const people = (await participants(db, activity)).filter(plan.isMeant).map(s => s.enrolmentId)
  const working = plan.phases.filter(p => isWorkingPhase(p.name))
  await tell(
    db,
    people,
    {
      kind: 'published',
      activityId: activity.id,
      text: `“${activity.title}” is open.`,
      detail: [
        activity.summary,
        ...working.map(p => `${capital(phaseWord(p.name))} until ${localTime(p.endsAt, seminar.timeZone)}.`),
        ...(activity.practice ? ['This is practice: it is read and marked, and does not count.'] : []),
      ]
        .filter(Boolean)
        .join('\n'),
    },
    pathOf(activity),
    now,
  )
  return people.length
}

/** Tells those who take part what changed, in words they would use. */
export async function notifyOfChange(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  before: ComposerView['body'],
  after: ActivityBody,
  now: Date,
): Promise<void> {
  const { activity, seminar } = actor
  const plan = await loadPlan(db, activity)
  const lines: string[] = []
  const [oldEnd, newEnd] = [
    closesAt({ opensAt: new Date(before.opensAt), phases: before.phases.map(toPhase) }),
    plan.closesAt,
  ]
  for (const p of plan.phases.filter(x => isWorkingPhase(x.name))) {
    const was = before.phases.find(o => o.name === p.name)
    if (!was)
      lines.push(`${capital(phaseWord(p.name))} until ${localTime(p.endsAt, seminar.timeZone)} is new.`)
    else if (new Date(was.endsAt).getTime() !== p.endsAt.getTime())
      lines.push(
        `${capital(phaseWord(p.name))} now ends ${localTime(p.endsAt, seminar.timeZone)}; it was ${localTime(new Date(was.endsAt), seminar.timeZone)}.`,
      )
  }
  if (JSON.stringify(before.rules.map(r => r.rule)) !== JSON.stringify(after.rules.map(r => r.rule)))
    lines.push('What is asked for has changed.')
  if (before.points !== after.points)
    lines.push(
      after.points === null ? 'It is no longer marked.' : `It is out of ${after.points / 100} points now.`,
    )
  if (before.practice !== after.practice)
    lines.push(after.practice ? 'It is practice now and does not count.' : 'It counts now.')
  if (before.title !== after.title) lines.push(`It was called “${before.title}”.`)
  if (JSON.stringify(before.brief) !== JSON.stringify(after.brief)) lines.push('The brief has changed.')
  const text =
    oldEnd.getTime() !== newEnd.getTime()
      ? `“${activity.title}” has new dates.`
      : `“${activity.title}” has changed.`
  const people = (await participants(db, activity)).filter(plan.isMeant).map(s => s.enrolmentId)
  await tell(
    db,
    people,
    { kind: 'changed', activityId: activity.id, text, detail: lines.join('\n') },
    pathOf(activity),
    now,
  )
}

const toPhase = (p: ComposerView['body']['phases'][number]) => ({
  name: p.name,
  startsAt: new Date(p.startsAt),
  endsAt: new Date(p.endsAt),
})
const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1)
