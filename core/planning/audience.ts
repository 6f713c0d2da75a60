/** For whom an activity is. */
export type Audience =
  | { readonly kind: 'everyone' }
  | { readonly kind: 'sections'; readonly sectionIds: readonly string[] }
  | { readonly kind: 'groups'; readonly groupPlanId: string; readonly groupIds: readonly string[] } // none named: all groups of the plan
  | { readonly kind: 'people'; readonly enrolmentIds: readonly string[] }

export interface AudiencePerson {
  readonly enrolmentId: string
  readonly sectionId: string | null
  readonly groupIds: readonly string[] // groups of all plans
}

/** Whether somebody is meant. `plan` holds all groups of the audience's plan; somebody in none of them is not meant. */
export function isMeant(
  audience: Audience,
  person: AudiencePerson,
  planGroupIds: readonly string[],
): boolean {
  switch (audience.kind) {
    case 'everyone':
      return true
    case 'sections':
      return person.sectionId !== null && audience.sectionIds.includes(person.sectionId)
    case 'people':
      return audience.enrolmentIds.includes(person.enrolmentId)
    case 'groups': {
      const meant = audience.groupIds.length > 0 ? audience.groupIds : planGroupIds
      return person.groupIds.some(id => meant.includes(id))
    }
  }
}
