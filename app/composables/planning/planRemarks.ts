import type { Earlier, Level, PlanRemark } from '#core/planning/planChecks'
import { setPhaseEnd, snapToUsual } from '#core/planning/moveSchedule'
import type { ActivityBody } from '#shared/planning/composer'
import { capital, inWords, plural } from '#core/language'
import { points } from '../marking/points'

type Body = Pick<ActivityBody, 'opensAt' | 'phases' | 'rules' | 'points'>
export interface Remedy {
  readonly label: string
  readonly change:
    Partial<ActivityBody> | 'starter' | 'category' | 'expectation' | 'brief' | 'audience' | 'prompts'
}
export interface RemarkWords {
  readonly level: Level
  readonly text: string
  readonly remedy: Remedy | null
}

/** A plan check in words, with its remedy where there is one. `body` null: only the words are wanted. */
export function remarkWords(
  remark: PlanRemark,
  body: Body | null,
  seminar: { readonly timeZone: string; readonly usualDueTime: string },
): RemarkWords {
  const say = (text: string, remedy: Remedy | null = null): RemarkWords => ({
    level: remark.level,
    text,
    remedy,
  })
  switch (remark.code) {
    case 'nothingAsked':
      return say('Nothing is asked for, so there is nothing due, and it will get lost.', {
        label: 'Add an expectation',
        change: 'expectation',
      })
    case 'nothingReviewed':
      return say('Readers are asked for nothing. Choose a rubric, or ask them a question.')
    case 'noBrief':
      return say('There is no brief yet.', { label: 'Write it', change: 'brief' })
    case 'vagueBrief':
      return say('The brief is short and asks no question. A question gives people something to answer.', {
        label: 'Look at it',
        change: 'brief',
      })
    case 'noStarter':
      return say('Starter: none yet. An opening example sets length and tone.', {
        label: 'Write one',
        change: 'starter',
      })
    case 'nobodyMeant':
      return say('Nobody takes part in it as it stands.', { label: 'Say for whom', change: 'audience' })
    case 'noCategory':
      return say('It is marked and counts nowhere.', { label: 'Choose a category', change: 'category' })
    case 'oneEntryBlog':
      return say('One entry only: a blog needs several over time.', {
        label: 'Ask for three',
        change: body
          ? {
              rules: body.rules.map((r, i) =>
                i === remark.rule && r.rule.kind === 'entries' ? { ...r, rule: { ...r.rule, need: 3 } } : r,
              ),
            }
          : {},
      })
    case 'unusualTime':
      return say(
        `${remark.phases.length === 1 ? 'A due time differs' : `${capital(inWords(remark.phases.length))} due times differ`} from your usual ${seminar.usualDueTime}.`,
        {
          label: `Make it ${seminar.usualDueTime}`,
          change: body ? atUsual(body, remark.phases, seminar) : {},
        },
      )
    case 'past':
      return say(
        `${remark.phases.length === 1 ? 'A due time has' : `${capital(inWords(remark.phases.length))} due times have`} passed already.`,
        { label: 'Change the due time', change: 'expectation' },
      )
    case 'inBreak':
      return say(
        `${remark.phases.length === 1 ? 'A due time falls' : `${capital(inWords(remark.phases.length))} due times fall`} into a break, “${remark.title}”.`,
        { label: 'Change the due time', change: 'expectation' },
      )
    case 'afterTerm':
      return say(
        `${remark.phases.length === 1 ? 'A due time comes' : `${capital(inWords(remark.phases.length))} due times come`} after the end of the term.`,
        { label: 'Change the due time', change: 'expectation' },
      )
    case 'latePrompts':
      return say(
        remark.prompts === 1
          ? 'A prompt is shown only after everything is due, so nobody can answer it in time.'
          : `${capital(inWords(remark.prompts))} prompts are shown only after everything is due, so nobody can answer them in time.`,
        { label: 'Look at the prompts', change: 'prompts' },
      )
    case 'pointsApart':
      return say(
        `It is worth ${points(remark.points)} points and its rubric ${points(remark.rubricPoints)}. Marks are stretched to fit.`,
        { label: `Make it ${points(remark.rubricPoints)}`, change: { points: remark.rubricPoints } },
      )
    case 'shortNotice':
      return say(
        `Writing has ${inWords(remark.days)} ${plural(remark.days, 'day')}; ${earlierWords(remark.earlier)} gave ${inWords(remark.earlierDays)}.`,
        {
          label: 'Add days',
          change: body ? longer(body, remark.earlierDays - remark.days, seminar.timeZone) : {},
        },
      )
    case 'fewerReplies':
      return say(
        `It asks for ${inWords(remark.need)} ${plural(remark.need, 'reply', 'replies')}; ${earlierWords(remark.earlier)} asked for ${inWords(remark.earlierNeed)}.`,
        {
          label: `Ask for ${inWords(remark.earlierNeed)}`,
          change: body
            ? {
                rules: body.rules.map((r, i) =>
                  i === remark.rule ? { ...r, rule: { ...r.rule, need: remark.earlierNeed } } : r,
                ),
              }
            : {},
        },
      )
  }
}

/** “Talk”, or “Talk” in HC 341 where that is another seminar. */
const earlierWords = ({ title, seminar }: Earlier): string =>
  seminar === null ? `“${title}”` : `“${title}” in ${seminar}`

const toSchedule = (body: Body) => ({
  opensAt: new Date(body.opensAt),
  phases: body.phases.map(p => ({ ...p, startsAt: new Date(p.startsAt), endsAt: new Date(p.endsAt) })),
})
const toBody = (s: ReturnType<typeof toSchedule>): Partial<ActivityBody> => ({
  opensAt: s.opensAt.toISOString(),
  phases: s.phases.map(p => ({
    name: p.name,
    startsAt: p.startsAt.toISOString(),
    endsAt: p.endsAt.toISOString(),
  })),
})

function atUsual(
  body: Body,
  names: readonly string[],
  { timeZone, usualDueTime }: { readonly timeZone: string; readonly usualDueTime: string },
): Partial<ActivityBody> {
  let schedule = toSchedule(body)
  for (const phase of schedule.phases.filter(p => names.includes(p.name))) {
    const moved = setPhaseEnd(
      schedule,
      phase.name,
      snapToUsual(phase.endsAt, usualDueTime, timeZone),
      timeZone,
    )
    if (moved.kind === 'moved')
      schedule = { opensAt: moved.schedule.opensAt, phases: [...moved.schedule.phases] }
  }
  return toBody(schedule)
}

function longer(body: Body, days: number, timeZone: string): Partial<ActivityBody> {
  const schedule = toSchedule(body)
  const [first] = schedule.phases
  const moved = first
    ? setPhaseEnd(schedule, first.name, new Date(first.endsAt.getTime() + days * 86_400_000), timeZone)
    : null
  return moved?.kind === 'moved'
    ? toBody({ opensAt: moved.schedule.opensAt, phases: [...moved.schedule.phases] })
    : {}
}
