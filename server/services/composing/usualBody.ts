import { v7 } from 'uuid'
import { KINDS } from '#core/kinds'
import { USUAL_LEXICON } from '#core/kinds/lexicon/lexiconSettings'
import { USUAL_READING } from '#core/kinds/reading/reading'
import { USUAL_WIKI } from '#core/kinds/wiki/wikiSettings'
import { USUAL_REVIEW } from '#core/kinds/review/reviewSettings'
import { USUAL_TALK } from '#core/contributing/talkSettings'
import { dayAfter, localInstant } from '#core/planning/week'
import { shiftDays } from '#core/planning/moveSchedule'
import { type ActivityRow, type Seminar } from '#server/access/seminar'
import type { TalkBody } from '#shared/contributing/activity'
import type { ActivityBody } from '#shared/planning/composer'

/** What a new activity of a kind begins with: a week of work, the usual due time, marking in the week after. */
export function usualBody(seminar: Seminar, kind: ActivityRow['kind'], week: number): ActivityBody {
  const monday = dayAfter(seminar.firstDay, 7 * (week - 1))
  const at = (day: number, time: string) =>
    localInstant(dayAfter(monday, day), time, seminar.timeZone).toISOString()
  const due = seminar.usualDueWeekday - 1
  const [first, second, third] = KINDS[kind].workingPhases
  const middle = Math.max(0, due - 3)
  const opensAt = at(0, '08:00')
  // a wiki takes its time: two weeks of writing, one of comments, one of revising
  const findPhaseList = () => {
    if (third)
      return [
        { name: first!, startsAt: opensAt, endsAt: at(7 + due, seminar.usualDueTime) },
        {
          name: second!,
          startsAt: at(7 + due, seminar.usualDueTime),
          endsAt: at(14 + due, seminar.usualDueTime),
        },
        {
          name: third,
          startsAt: at(14 + due, seminar.usualDueTime),
          endsAt: at(21 + due, seminar.usualDueTime),
        },
      ]
    if (second)
      return second === 'review'
        ? [
            { name: first!, startsAt: opensAt, endsAt: at(due, seminar.usualDueTime) },
            { name: second, startsAt: at(7, '00:00'), endsAt: at(7 + due, seminar.usualDueTime) },
          ]
        : [
            { name: first!, startsAt: opensAt, endsAt: at(middle, seminar.usualDueTime) },
            {
              name: second,
              startsAt: at(middle, seminar.usualDueTime),
              endsAt: at(due, seminar.usualDueTime),
            },
          ]
    return [{ name: first!, startsAt: opensAt, endsAt: at(due, seminar.usualDueTime) }]
  }
  const phaseList: ActivityBody['phases'] = findPhaseList()
  const last = phaseList.at(-1)!
  const marking = {
    name: 'mark' as const,
    startsAt: shiftDays(new Date(last.endsAt), 0, seminar.timeZone).toISOString(),
    endsAt: shiftDays(new Date(last.endsAt), 7, seminar.timeZone).toISOString(),
  }
  const empty = { type: 'doc', content: [{ type: 'paragraph' }] }
  return {
    kind,
    title: KINDS[kind].usualTitle,
    brief: empty,
    starter: null,
    spokenFileId: null,
    unitId: null,
    categoryId: null,
    scale: 'none',
    gradingScaleId: null,
    points: null,
    passPercent: null,
    practice: false,
    groupMark: false,
    returnTogether: true,
    rubricVersionId: null,
    lateRule: { kind: 'none' },
    combine: null,
    audience: { kind: 'everyone' },
    jointSeminarIds: [],
    ...(structuredClone(USUAL_TALK) as TalkBody),
    review: structuredClone(USUAL_REVIEW) as ActivityBody['review'],
    wiki: structuredClone(USUAL_WIKI) as ActivityBody['wiki'],
    lexicon: structuredClone(USUAL_LEXICON) as ActivityBody['lexicon'],
    reading: { ...USUAL_READING },
    writeFirst: KINDS[kind].usualWriteFirst,
    hiddenUntil: null,
    editMinutes: 30,
    rests: [],
    opensAt,
    phases: [...phaseList, marking],
    rules: KINDS[kind].usualRules.map(rule => ({ id: v7(), rule, needed: true })),
    prompts: [],
  }
}
