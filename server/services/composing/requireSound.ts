import { KINDS } from '#core/kinds'
import type { ExpectationRule } from '#core/planning/expectations/rule'
import { isWorkingPhase, scheduleFaults, type Phase } from '#core/planning/schedule'
import { refusedField } from '#server/http/problem'
import type { ActivityBody } from '#shared/planning/composer'
import { scheduleSentence } from '#server/services/planning'

export function requireSound(body: Pick<ActivityBody, 'opensAt' | 'phases' | 'rules' | 'kind'>): void {
  const schedule = { opensAt: new Date(body.opensAt), phases: toPhases(body.phases) }
  const [fault] = scheduleFaults(schedule)
  if (fault) throw refusedField('phases', fault.code, scheduleSentence(fault))
  if (new Set(body.phases.map(p => p.name)).size < body.phases.length)
    throw refusedField('phases', 'twice', 'A phase stands in this schedule twice.')
  const working = new Set(body.phases.map(p => p.name).filter(isWorkingPhase))
  if (body.rules.some(r => !working.has(r.rule.due)))
    throw refusedField(
      'rules',
      'noPhase',
      'An expectation is due at the end of a phase this activity does not have. Choose another due time for it.',
    )
  const { expects } = KINDS[body.kind]
  const unfit = body.rules.find(r => !expects.includes(r.rule.kind))
  if (unfit) throw refusedField('rules', ...UNFIT[unfit.rule.kind])
}

const NO_ENTRIES = ['noEntries', 'Entries cannot be asked for here.'] as const
const NO_PAGES = ['noPages', 'Pages are claimed in a wiki only, so they cannot be asked for here.'] as const
const NO_MARGIN = [
  'noMargin',
  'Notes stand in the margin of a reading only, so they cannot be asked for here.',
] as const

/** What is said of an expectation that an activity of this kind cannot have. */
const UNFIT: Readonly<Record<ExpectationRule['kind'], readonly [code: string, sentence: string]>> = {
  entries: NO_ENTRIES,
  weeklyEntries: NO_ENTRIES,
  prompts: ['noPrompts', 'There are no prompts here, so answers to them cannot be asked for.'],
  holds: ['noSources', 'Sources and pictures cannot be asked for here.'],
  activeDays: ['noDays', 'Days of taking part cannot be asked for here.'],
  reviews: ['noReviews', 'Nothing is reviewed here, so reviews cannot be asked for.'],
  ownPages: NO_PAGES,
  revisions: NO_PAGES,
  questions: NO_MARGIN,
  parts: NO_MARGIN,
  replies: ['noAnswers', 'Classmates do not answer each other here, so replies cannot be asked for.'],
}

export const toPhases = (list: ActivityBody['phases']): Phase[] =>
  list.map(p => ({ name: p.name, startsAt: new Date(p.startsAt), endsAt: new Date(p.endsAt) }))
