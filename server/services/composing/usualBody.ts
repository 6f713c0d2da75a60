import { v7 } from 'uuid'
import { KINDS } from '#core/contributing/kinds'
import { USUAL_LEXICON } from '#core/contributing/lexicon/lexiconSettings'
import { USUAL_READING } from '#core/contributing/reading/reading'
import { USUAL_WIKI } from '#core/contributing/wiki/wikiSettings'
import { USUAL_REVIEW } from '#core/contributing/review/reviewSettings'
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
  const rule = (r: ActivityBody['rules'][number]['rule']) => ({ id: v7(), rule: r, needed: true })
  const rules = {
    discussion: [
      rule({ kind: 'entries', need: 1, minWords: 200, due: 'write' }),
      rule({ kind: 'replies', need: 2, minWords: 60, due: 'respond' }),
    ],
    journal: [rule({ kind: 'weeklyEntries', need: 1, minWords: 150, due: 'write' })],
    blog: [
      rule({ kind: 'entries', need: 3, minWords: 250, due: 'write' }),
      rule({ kind: 'replies', need: 2, minWords: 40, due: 'respond' }),
    ],
    wiki: [
      rule({ kind: 'ownPages', need: 1, minWords: 300, due: 'write' }),
      rule({ kind: 'replies', need: 2, minWords: 20, due: 'respond' }),
      rule({ kind: 'revisions', need: 1, due: 'revise' }),
    ],
    reading: [
      rule({ kind: 'entries', need: 4, minWords: 20, due: 'write' }),
      rule({ kind: 'replies', need: 2, minWords: 20, due: 'respond' }),
    ],
    review: [
      rule({ kind: 'entries', need: 1, minWords: 800, due: 'write' }),
      rule({ kind: 'reviews', need: USUAL_REVIEW.each, minWords: 60, due: 'review' }),
    ],
    lexicon: [rule({ kind: 'entries', need: 2, minWords: 40, due: 'write' })],
    exitNote: [rule({ kind: 'entries', need: 1, minWords: 10, due: 'write' })],
  }[kind]
  const empty = { type: 'doc', content: [{ type: 'paragraph' }] }
  return {
    kind,
    title: {
      discussion: 'New discussion',
      journal: 'New journal',
      blog: 'New blog',
      wiki: 'New wiki',
      reading: 'New reading',
      review: 'New peer review',
      lexicon: 'New lexicon',
      exitNote: 'New exit note',
    }[kind],
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
    writeFirst: kind === 'discussion',
    hiddenUntil: null,
    editMinutes: 30,
    rests: [],
    opensAt,
    phases: [...phaseList, marking],
    rules,
    prompts: [],
  }
}
