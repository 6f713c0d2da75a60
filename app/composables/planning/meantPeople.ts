import { isMeant } from '#core/planning/audience'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'

/** How many students take part: the audience at home, and everyone of the seminars it is held with. */
export function meantPeople(
  view: Pick<ComposerView, 'people' | 'groupPlans' | 'seminars'>,
  { audience, jointSeminarIds }: Pick<ActivityBody, 'audience' | 'jointSeminarIds'>,
): number {
  const plan =
    audience.kind === 'groups' ? view.groupPlans.find(p => p.id === audience.groupPlanId) : undefined
  const all = plan?.groups.map(g => g.id) ?? []
  const guests = view.seminars.filter(s => jointSeminarIds.includes(s.id)).reduce((n, s) => n + s.people, 0)
  return (
    guests +
    view.people.filter(p =>
      isMeant(
        audience,
        {
          enrolmentId: p.id,
          sectionId: p.sectionId,
          groupIds: plan?.groups.filter(g => g.memberIds.includes(p.id)).map(g => g.id) ?? [],
        },
        all,
      ),
    ).length
  )
}
