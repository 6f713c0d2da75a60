import { takesMarking } from '#core/marking/showMark'
import { plainText } from '#core/contributing/richText'
import { pointsOf } from '#core/marking/rubric/rubricDraft'
import { minutesWords } from '#core/planning/expectationWords'
import { askedInAll } from '#core/planning/load'
import { loadInAll } from '#core/planning/loadByWeek'
import { sortPeople } from '#core/planning/takingPart'
import { checkActivity, type CheckedActivity } from '#core/planning/planChecks'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import type { SeminarShell } from '#shared/people/seminar'
import { termOfShell } from './termOfShell'
import { composedAudience, peopleOf } from './composedAudience'
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
  asksReaders: true,
  people: 1,
  restWeeks: [],
  promptsAt: [],
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
      prompts,
      review,
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
        ? pointsOf({ criteria: rubric.value.criteria.map(c => ({ ...c, outcomes: [] })) })
        : null,
      counted: points !== null && scale !== 'none' && !practice,
      hasCategory: categoryId !== null,
      asksReaders: rubric.value !== null || review.questions.length > 0,
      people: people.value,
      restWeeks: rests,
      promptsAt: prompts.map(p => new Date(p.releaseAt)),
      seminar: null,
    }
  })
  const found = computed(() =>
    checkActivity(checked.value, {
      timeZone: shell().timeZone,
      usualDueTime: shell().usualDueTime,
      term: termOfShell(shell()),
      now: new Date(shell().now),
      earlier: view().earlier.map(toEarlier),
    }),
  )
  const remarks = computed<RemarkWords[]>(() => found.value.map(r => remarkWords(r, body(), shell())))
  const workload = computed(() => {
    const { parts } = sortPeople([composedAudience(view(), body())], peopleOf(view(), body()))
    const { rules, prompts, rests } = body()
    const load = loadInAll(
      {
        phases: checked.value.phases,
        rules: askedInAll(
          rules.map(r => r.rule),
          prompts.length + view().questions,
        ),
        marked: takesMarking(body()),
        parts: parts[0]!,
        restWeeks: rests,
      },
      termOfShell(shell()),
      view().pace,
    )
    const [least, most] = [minutesWords(load.least), minutesWords(load.most)]
    const each = least === most ? `${most} for each student` : `${least} to ${most} for a student`
    return `Workload: ${each}; ${load.marking > 0 ? `${minutesWords(load.marking)} for you to mark` : 'nothing to mark'}.`
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
