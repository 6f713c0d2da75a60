import { makeGroups } from '#core/people/makeGroups'
import { dayAfter, localInstant } from '#core/planning/week'
import * as t from '#server/database/schema'
import { namesOf } from '#server/services/people/nameView'
import { demoGroupPlans } from './rubrics'
import { people } from './people'
import type { Demo } from './demo'
import { TIME_ZONE } from './demo'

export async function seedPeople(demo: Demo) {
  const [seminar] = await demo.db
    .insert(t.seminars)
    .values({
      code: 'HC 342',
      title: 'Harbour Cities, 1500–1800',
      college: 'Northmere College',
      timeZone: TIME_ZONE,
      firstDay: demo.firstDay,
      weeks: 12,
    })
    .returning()
  demo.seminarId = seminar!.id
  const sections = await demo.db
    .insert(t.sections)
    .values(
      ['A', 'B'].map(title => ({
        seminarId: demo.seminarId,
        title: `Section ${title}`,
        position: title === 'A' ? 0 : 1,
      })),
    )
    .returning()
  for (const p of people) {
    const [person] = await demo.db
      .insert(t.persons)
      .values({
        email: `${p.key}@northmere.example`,
        name: p.name,
        givenName: p.given,
        familyName: p.family,
        passwordHash: demo.passwordHash,
        confirmedAt: new Date(),
        foundsSeminars: p.key === 'ines',
        mailChoice: p.key === 'petra' ? ('daily' as const) : ('atOnce' as const),
      })
      .returning()
    const [enrolment] = await demo.db
      .insert(t.enrolments)
      .values({
        seminarId: demo.seminarId,
        personId: person!.id,
        ...namesOf(person!),
        role: p.role,
        studentNumber: p.role === 'student' ? `N${String(4100 + people.indexOf(p))}` : null,
        joinedAt: localInstant(dayAfter(demo.firstDay, -7), '09:00', TIME_ZONE),
        sectionId: p.section ? sections[p.section === 'A' ? 0 : 1]!.id : null,
      })
      .returning()
    demo.enrolment.set(p.key, enrolment!.id)
  }
}

export async function seedGroups(demo: Demo) {
  for (const [position, plan] of demoGroupPlans.entries()) {
    const id = (key: string) => demo.enrolment.get(key)!
    const rules = {
      by: plan.by,
      count: plan.count,
      seed: plan.seed,
      mixSections: true,
      together: plan.together.map(set => set.map(id)),
      apart: plan.apart.map(set => set.map(id)),
    }
    const students = people.filter(p => p.role === 'student')
    // dealt by names, so that the groups are the same in every demo, whatever the ids
    const dealt = makeGroups(
      students.map(p => ({ id: p.key, sectionId: p.section })),
      { ...rules, together: plan.together, apart: plan.apart },
    )
    if (dealt.kind !== 'made') throw new Error(`demo: the groups of ${plan.title} contradict each other`)
    const [row] = await demo.db
      .insert(t.groupPlans)
      .values({
        seminarId: demo.seminarId,
        title: plan.title,
        rules,
        position,
        madeAt: demo.at([2, 1, '09:00']),
      })
      .returning()
    demo.groupPlan.set(plan.key, row!.id)
    for (const [i, members] of dealt.groups.entries()) {
      const round = Math.floor(i / plan.topics.length)
      const [group] = await demo.db
        .insert(t.groups)
        .values({
          seminarId: demo.seminarId,
          groupPlanId: row!.id,
          title: `${plan.topics[i % plan.topics.length]}${round > 0 ? ` ${round + 1}` : ''}`,
          position: i,
        })
        .returning()
      await demo.db.insert(t.groupMembers).values(
        members.map(key => ({
          seminarId: demo.seminarId,
          groupPlanId: row!.id,
          groupId: group!.id,
          enrolmentId: id(key),
          since: demo.at([2, 1, '09:00']),
        })),
      )
    }
  }
}
