import { isMeant } from '#core/planning/audience'
import type { AudienceBody, ComposerView } from '#shared/planning/composer'

/** How many students an audience comes to, of those the composer knows. */
export function meantPeople(view: Pick<ComposerView, 'people' | 'groupPlans'>, audience: AudienceBody): number {
  const plan = audience.kind === 'groups' ? view.groupPlans.find(p => p.id === audience.groupPlanId) : undefined
  const all = plan?.groups.map(g => g.id) ?? []
  return view.people.filter(p => isMeant(audience, { enrolmentId: p.id, sectionId: p.sectionId, groupIds: plan?.groups.filter(g => g.memberIds.includes(p.id)).map(g => g.id) ?? [] }, all)).length
}
