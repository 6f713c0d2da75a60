import { KINDS } from '#core/contributing/kinds'
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
  const { answerType, readBy } = KINDS[body.kind]
  if (body.rules.some(r => r.rule.kind === 'reviews') && answerType !== 'review')
    throw refusedField('rules', 'noReviews', 'Nothing is reviewed here, so reviews cannot be asked for.')
  if (body.kind !== 'wiki' && body.rules.some(r => r.rule.kind === 'ownPages' || r.rule.kind === 'revisions'))
    throw refusedField(
      'rules',
      'noPages',
      'Pages are claimed in a wiki only, so they cannot be asked for here.',
    )
  if (body.kind !== 'reading' && body.rules.some(r => r.rule.kind === 'questions' || r.rule.kind === 'parts'))
    throw refusedField(
      'rules',
      'noMargin',
      'Notes stand in the margin of a reading only, so they cannot be asked for here.',
    )
  if (body.rules.some(r => r.rule.kind === 'replies') && (answerType === null || readBy !== 'class'))
    throw refusedField(
      'rules',
      'noAnswers',
      'Classmates do not answer each other here, so replies cannot be asked for.',
    )
}

export const toPhases = (list: ActivityBody['phases']): Phase[] =>
  list.map(p => ({ name: p.name, startsAt: new Date(p.startsAt), endsAt: new Date(p.endsAt) }))
