import { localTime } from '#core/planning/localTime'
import { closesAt, isWorkingPhase } from '#core/planning/schedule'
import type { Event } from '#server/services/events'
import { type ActivityPlan, phaseWord } from '#server/services/planning'
import type { ComposerView } from '#shared/planning/composer'

interface Words {
  readonly text: string
  readonly detail: string
}

/** That an activity is there, with its due times. */
export function publishedWords(
  { activity, seminar }: Extract<Event, { kind: 'published' }>,
  plan: ActivityPlan,
): Words {
  const working = plan.phases.filter(p => isWorkingPhase(p.name))
  return {
    text: `“${activity.title}” is open.`,
    detail: [
      activity.summary,
      ...working.map(p => `${capital(phaseWord(p.name))} until ${localTime(p.endsAt, seminar.timeZone)}.`),
      ...(activity.practice ? ['This is practice: it is read and marked, and does not count.'] : []),
    ]
      .filter(Boolean)
      .join('\n'),
  }
}

/** What changed, in words students would use. */
export function changedWords(event: Extract<Event, { kind: 'planChanged' }>, plan: ActivityPlan): Words {
  const { activity, before, after } = event
  const lines: string[] = dueWords(event, plan)
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
  const oldEnd = closesAt({ opensAt: new Date(before.opensAt), phases: before.phases.map(toPhase) })
  return {
    text:
      oldEnd.getTime() !== plan.closesAt.getTime()
        ? `“${activity.title}” has new dates.`
        : `“${activity.title}” has changed.`,
    detail: lines.join('\n'),
  }
}

function dueWords(
  { before, seminar }: Extract<Event, { kind: 'planChanged' }>,
  plan: ActivityPlan,
): string[] {
  return plan.phases
    .filter(p => isWorkingPhase(p.name))
    .flatMap(p => {
      const was = before.phases.find(o => o.name === p.name)
      const until = localTime(p.endsAt, seminar.timeZone)
      if (!was) return [`${capital(phaseWord(p.name))} until ${until} is new.`]
      const wasUntil = new Date(was.endsAt)
      if (wasUntil.getTime() === p.endsAt.getTime()) return []
      return [
        `${capital(phaseWord(p.name))} now ends ${until}; it was ${localTime(wasUntil, seminar.timeZone)}.`,
      ]
    })
}

const toPhase = (p: ComposerView['body']['phases'][number]) => ({
  name: p.name,
  startsAt: new Date(p.startsAt),
  endsAt: new Date(p.endsAt),
})
const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1)
