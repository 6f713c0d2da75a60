import { KINDS } from '#core/kinds'
import { plainText } from '#core/contributing/richText'
import { pointsOf } from '#core/marking/rubric/rubricDraft'
import { minutesWords } from '#core/planning/expectationWords'
import { askedInAll, expectedLoad } from '#core/planning/load'
import { checkActivity, type CheckedActivity } from '#core/planning/planChecks'
import { localDay, type Term } from '#core/planning/week'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import type { SeminarShell } from '#shared/people/seminar'
import { meantPeople } from './meantPeople'
import { remarkWords, type RemarkWords } from './planRemarks'

/** An earlier activity, as far as checks compare with it. */
const toEarlier = (earlier: ComposerView['earlier'][number]): CheckedActivity => ({
  ...earlier,
  opensAt: new Date(earlier.opensAt),
  phases: earlier.phases.map(p => ({
    ...p,
    startsAt: new Date(p.startsAt),
    endsAt: new Date(p.endsAt),
  })),
  briefText: '',
  hasStarter: true,
  points: null,
  rubricPoints: null,
  counted: false,
  hasCategory: true,
  people: 1,
  restWeeks: [],
})

/** The term as its weeks tell it. */
const termOf = ({ weeks, timeZone }: SeminarShell): Term => ({
  firstDay: localDay(new Date(weeks[0]!.startsAt), timeZone),
  weeks: weeks.length,
  timeZone,
  breaks: weeks.filter(w => w.label === null).map(w => ({ week: w.number, title: w.title ?? '' })),
})

/** What is to be looked at in a plan before it is published, and what is fine. */
export function usePlanChecks(view: () => ComposerView, body: () => ActivityBody, shell: () => SeminarShell) {
  const people = computed(() => meantPeople(view(), body()))
  const rubric = computed(() => view().rubrics.find(r => r.versionId === body().rubricVersionId) ?? null)
  const checked = computed<CheckedActivity>(() => {
    const {
      kind,
      title,
      opensAt,
      phases,
      rules,
      brief,
      starter,
      points,
      scale,
      practice,
      categoryId,
      rests,
    } = body()
    return {
      id: view().id,
      kind,
      title,
      state: view().state,
      opensAt: new Date(opensAt),
      phases: phases.map(p => ({
        name: p.name,
        startsAt: new Date(p.startsAt),
        endsAt: new Date(p.endsAt),
      })),
      rules: rules.map(r => r.rule),
      briefText: plainText(brief),
      hasStarter: starter !== null && plainText(starter) !== '',
      points,
      rubricPoints: rubric.value
        ? pointsOf({ criteria: rubric.value.criteria.map(c => ({ ...c, outcome: null })) })
        : null,
      counted: points !== null && scale !== 'none' && !practice,
      hasCategory: categoryId !== null,
      people: people.value,
      restWeeks: rests,
    }
  })
  const found = computed(() =>
    checkActivity(checked.value, {
      timeZone: shell().timeZone,
      usualDueTime: shell().usualDueTime,
      term: termOf(shell()),
      now: new Date(shell().now),
      earlier: view().earlier.map(toEarlier),
    }),
  )
  const remarks = computed<RemarkWords[]>(() => found.value.map(r => remarkWords(r, body(), shell())))
  const workload = computed(() => {
    const rules = body().rules.map(r => r.rule)
    const readsAll = KINDS[body().kind].readBy === 'class'
    const load = expectedLoad(askedInAll(rules, body().prompts.length), people.value, readsAll, view().pace)
    return `Workload: ${minutesWords(load.writing + load.reading)} for each student; ${minutesWords(load.marking)} for you to mark.`
  })
  const fine = computed(() => {
    const codes = new Set(found.value.map(r => r.code))
    const lines = [workload.value]
    if (!codes.has('unusualTime')) lines.push(`Due times are your usual ${shell().usualDueTime}.`)
    if (rubric.value && !codes.has('pointsApart'))
      lines.push(`The levels add up to ${(checked.value.rubricPoints ?? 0) / 100}.`)
    if (checked.value.hasStarter) lines.push('A starter sets length and tone.')
    return lines
  })
  return { people, remarks, fine }
}
