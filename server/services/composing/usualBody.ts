import { v7 } from 'uuid'
import { KINDS } from '#core/kinds'
import { USUAL_LEXICON } from '#core/kinds/lexicon/lexiconSettings'
import { USUAL_READING } from '#core/kinds/reading/reading'
import { USUAL_WIKI } from '#core/kinds/wiki/wikiSettings'
import { USUAL_REVIEW } from '#core/kinds/review/reviewSettings'
import { USUAL_TALK } from '#core/contributing/talkSettings'
import { proposeSchedule, workToPlan } from '#core/planning/proposeSchedule'
import { type ActivityRow, type Seminar } from '#server/access/seminar'
import type { TalkBody } from '#shared/contributing/activity'
import type { ActivityBody } from '#shared/planning/composer'

/** What a new activity of a kind begins with: a proposed schedule, and what is usually asked for. */
export function usualBody(
  seminar: Seminar,
  kind: ActivityRow['kind'],
  week: number,
  now: Date,
): ActivityBody {
  const usual = { weekday: seminar.usualDueWeekday, time: seminar.usualDueTime }
  const proposed = proposeSchedule(workToPlan(kind), seminar, week, usual, now)
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
    opensAt: proposed.opensAt.toISOString(),
    phases: proposed.phases.map(p => ({
      name: p.name,
      startsAt: p.startsAt.toISOString(),
      endsAt: p.endsAt.toISOString(),
    })),
    rules: KINDS[kind].usualRules.map(rule => ({ id: v7(), rule, needed: true })),
    prompts: [],
  }
}
