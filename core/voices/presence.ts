const DAY = 86_400_000

/** What an instructor did towards one student. */
export const ACT_KINDS = ['reply', 'comment', 'answer', 'letter', 'message'] as const
export type ActKind = (typeof ACT_KINDS)[number]
export interface Act {
  readonly studentId: string
  readonly kind: ActKind
  readonly at: number
  readonly words: number | null
}

/** Words from which a reply is more than a nod. */
export const SUBSTANTIVE_WORDS = 25

/**
 * Whether an act counts as substantive contact: replies from 25 words on; comments, answered questions,
 * letters and messages to one student always.
 */
export const counts = ({ kind, words }: Act): boolean => kind !== 'reply' || (words ?? 0) >= SUBSTANTIVE_WORDS

export interface Contact {
  readonly studentId: string
  readonly acts: number // that count
  readonly lastAt: number | null
  readonly weeks: readonly number[] // acts that count in each week of the span
  readonly longestGapDays: number // between two acts, from the beginning of the span, and up to now
  readonly gapDays: number // since the last act, or the beginning
}

/**
 * Substantive contact with each student within a span.
 *
 * @param span.joined when somebody joined, milliseconds since 1970: for them it begins then
 * @param span.weeks beginnings of its weeks and, last, its end, milliseconds since 1970; what lies after `now` has not happened
 */
export function readPresence(
  acts: readonly Act[],
  students: readonly string[],
  span: {
    readonly weeks: readonly number[]
    readonly now: number
    readonly joined?: ReadonlyMap<string, number>
  },
): Contact[] {
  const [from, end] = [span.weeks[0]!, Math.min(span.now, span.weeks.at(-1)!)]
  const by = new Map(students.map(id => [id, [] as number[]]))
  for (const act of acts)
    if (counts(act) && act.at >= from && act.at <= end) by.get(act.studentId)?.push(act.at)
  return [...by].map(([studentId, at]): Contact => {
    at.sort((a, b) => a - b)
    const begun = Math.max(from, Math.min(span.joined?.get(studentId) ?? from, at[0] ?? end))
    const marks = [begun, ...at, Math.max(begun, end)]
    const gaps = marks.slice(1).map((m, i) => (m - marks[i]!) / DAY)
    const weeks = new Array<number>(span.weeks.length - 1).fill(0)
    for (const instant of at) {
      const week = span.weeks.findLastIndex(w => w <= instant)
      if (week >= 0) weeks[Math.min(week, weeks.length - 1)]!++
    }
    return {
      studentId,
      acts: at.length,
      lastAt: at.at(-1) ?? null,
      weeks,
      longestGapDays: Math.floor(Math.max(...gaps)),
      gapDays: Math.floor(gaps.at(-1)!),
    }
  })
}
