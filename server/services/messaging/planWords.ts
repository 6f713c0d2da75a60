import { capital, plural } from '#core/language'
import type { LateRule } from '#core/marking/lateness'
import { ruleWords } from '#core/planning/expectationWords'
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
  lines.push(...openingWords(event), ...askedWords(event), ...worthWords(event), ...lateRuleWords(event))
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

type Changed = Extract<Event, { kind: 'planChanged' }>

function openingWords({ before, after, seminar }: Changed): string[] {
  if (before.opensAt === after.opensAt) return []
  const [was, is] = [before, after].map(b => localTime(new Date(b.opensAt), seminar.timeZone))
  return [`It opens ${is}; it was ${was}.`]
}

/** What is asked for, each with what it was. */
function askedWords({ before, after }: Changed): string[] {
  const was = new Map(before.rules.map(r => [r.id, ruleWords(r.rule, before.kind)]))
  const is = new Map(after.rules.map(r => [r.id, ruleWords(r.rule, after.kind)]))
  return [
    ...[...is].flatMap(([id, words]) => {
      const old = was.get(id)
      if (old === undefined) return [`Asked for now, too: ${words}.`]
      return old === words ? [] : [`Asked for now: ${words}; it was: ${old}.`]
    }),
    ...[...was].filter(([id]) => !is.has(id)).map(([, words]) => `No longer asked for: ${words}.`),
  ]
}

function worthWords({ before, after }: Changed): string[] {
  if (before.points === after.points) return []
  if (after.points === null) return ['It is no longer marked.']
  const was = before.points === null ? 'it was not marked' : `it was out of ${before.points / 100}`
  return [`It is out of ${after.points / 100} points now; ${was}.`]
}

function lateRuleWords({ before, after }: Changed): string[] {
  if (JSON.stringify(before.lateRule) === JSON.stringify(after.lateRule)) return []
  return [
    `Late work now ${lateWords(after.lateRule, 'now')}; before, it ${lateWords(before.lateRule, 'then')}.`,
  ]
}

const LATE_VERBS = {
  none: { now: 'counts', then: 'counted' },
  cap: { now: 'earns', then: 'earned' },
  perDay: { now: 'loses', then: 'lost' },
} as const

/** What becomes of late work, after "it …". */
function lateWords(rule: LateRule, when: 'now' | 'then'): string {
  const verb = LATE_VERBS[rule.kind][when]
  if (rule.kind === 'none') return `${verb} in full`
  const hours = Math.round(rule.graceMinutes / 6) / 10
  const grace = hours === 0 ? '' : ` after ${hours} ${plural(hours, 'hour')} of grace`
  if (rule.kind === 'cap') return `${verb} at most ${rule.capPercent} % of the points${grace}`
  return `${verb} ${rule.percentPerDay} % of the points a day${grace}, down to ${rule.floorPercent} %`
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
