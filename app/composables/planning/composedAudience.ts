import { readsAlong } from '#core/kinds'
import { isMeant } from '#core/planning/audience'
import { conversationOf, type Audience } from '#core/planning/takingPart'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'

/** A student as an audience sees them: of this seminar, or a guest of one it is held with. */
export interface Meant {
  readonly id: string
  readonly sectionId: string | null
  readonly guest: boolean
}
type Chosen = Pick<ComposerView, 'people' | 'groupPlans' | 'seminars'>
type Planned = Pick<ActivityBody, 'kind' | 'audience' | 'jointSeminarIds' | 'apart' | 'opening'>

/** Everyone who may take part: those of the seminar, and those of the seminars it is held with. */
export const peopleOf = (view: Chosen, { jointSeminarIds }: Pick<Planned, 'jointSeminarIds'>): Meant[] => [
  ...view.people.map(p => ({ id: p.id, sectionId: p.sectionId, guest: false })),
  ...view.seminars
    .filter(s => jointSeminarIds.includes(s.id))
    .flatMap(s =>
      Array.from({ length: s.people }, (_, i) => ({ id: `${s.id} ${i}`, sectionId: null, guest: true })),
    ),
]

/** For whom an activity is, as it is composed. */
export function composedAudience(view: Chosen, body: Planned): Audience<Meant> {
  const { audience } = body
  const plan =
    audience.kind === 'groups' ? view.groupPlans.find(p => p.id === audience.groupPlanId) : undefined
  const groupOf = new Map(plan?.groups.flatMap(g => g.memberIds.map(id => [id, g.id] as const)) ?? [])
  const all = plan?.groups.map(g => g.id) ?? []
  return {
    isMeant: p =>
      p.guest ||
      isMeant(
        audience,
        {
          enrolmentId: p.id,
          sectionId: p.sectionId,
          groupIds: groupOf.has(p.id) ? [groupOf.get(p.id)!] : [],
        },
        all,
      ),
    conversationOf: ({ id, sectionId }) =>
      conversationOf(body.apart, { sectionId, groupId: groupOf.get(id) ?? null }),
    groupOf: p => groupOf.get(p.id) ?? null,
    readsAlong: readsAlong(body.kind, body),
  }
}
