import type { LeftBehind } from '#core/planning/leftBehind'

const LEFT_WORDS: Readonly<Record<LeftBehind, string>> = {
  audience: 'It is for everyone there: sections, groups and people are this seminar’s own.',
  joint: 'No other seminar takes part in it.',
  rests: 'It rests in no week.',
  apartIn: 'Groupmates may review each other.',
  sharesOf: 'It shares out no group’s mark.',
  category: 'It is in no category, for there is none of this name.',
  scale: 'It has no grading scale, for there is none of this name.',
}

/** What a copy into another seminar is without, in sentences. */
export const copyWords = (left: readonly LeftBehind[]): string => left.map(part => LEFT_WORDS[part]).join(' ')
