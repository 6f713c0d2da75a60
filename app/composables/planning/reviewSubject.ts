import type { ReviewSettingsBody } from '#shared/kinds/review/settings'
import type { ActivityBody } from '#shared/planning/composer'

/**
 * What changes in a plan when something else is reviewed. Teammates hand nothing in: the phase and the expectation for it go;
 * changed back, they come again.
 */
export function withSubject(
  body: ActivityBody,
  subject: ReviewSettingsBody['subject'],
): Partial<ActivityBody> {
  const review = {
    ...body.review,
    subject,
    ...(subject === 'teammates' && { self: true, together: true, remarkWords: 0, helpful: false }),
  }
  if (subject === 'teammates') {
    const phases = body.phases.filter(p => p.name !== 'write')
    return {
      review,
      phases: phases.some(p => p.name === 'review') ? phases : body.phases,
      rules: body.rules.filter(r => r.rule.due !== 'write'),
    }
  }
  const reviewing = body.phases.find(p => p.name === 'review')
  const write = {
    name: 'write' as const,
    startsAt: body.opensAt,
    endsAt: reviewing?.startsAt ?? body.phases[0]!.endsAt,
  }
  const has = body.phases.some(p => p.name === 'write') || write.endsAt <= write.startsAt
  return { review, ...(!has && { phases: [write, ...body.phases] }) }
}
