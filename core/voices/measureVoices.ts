import { readingEase } from './readingEase'
import type { TalkEntry } from './talkEntry'
import { gini, haveHalf, median } from './share'

/** What one person said, as figures. Times in milliseconds. */
export interface Voice {
  readonly personId: string
  readonly contributions: number
  readonly words: number
  readonly wordsEach: number | null // mean
  readonly sentences: number
  readonly sentenceLength: number | null // mean, in words
  readonly ease: number | null // Flesch reading ease
  readonly daysActive: number
  readonly firstAgainstDue: number | null // first contribution less its due time: below 0 is early; of several activities the median
  readonly medianToAnswer: number | null // from what was answered to the answer
  readonly depth: number | null // deepest place in a thread, 0 at its top
  readonly answered: number // different classmates
  readonly answeredBy: number // different classmates
  readonly answersGot: number // from classmates
  readonly shareAnswered: number | null // of own contributions, those that somebody else answered
  readonly reciprocity: number | null // of the classmates answered, those who answered back
}

/** What all said together. */
export interface AllVoices {
  readonly contributions: number // of students
  readonly words: number
  readonly spoke: number
  readonly silent: readonly string[]
  readonly gini: number | null // of words over everyone, the silent among them
  readonly haveHalf: number // students who have half of all words together
  readonly shareAnswered: number | null // of students' contributions, those somebody else answered
  readonly reciprocity: number | null // of the pairs of which one answered the other, those who both did
  readonly staffShare: number | null // of all words
  readonly voices: readonly Voice[] // in the order the people were given
}

export interface Population {
  readonly people: readonly string[] // students who are meant, silent or not
  readonly staff: ReadonlySet<string>
  readonly dayOf: (at: number) => string // local day of an instant
  readonly dueOf: (activityId: string, personId: string) => number | null // when the first contribution was due
  /** Answers to contributions that are looked at but whose answer lies outside what is: they count as answered, too. */
  readonly answeredElsewhere?: ReadonlySet<string>
}

interface Tally {
  words: number
  sentences: number
  syllables: number
  contributions: number
  depth: number
  days: Set<string>
  first: Map<string, number>
  waits: number[]
  answered: Map<string, number>
  answeredBy: Map<string, number>
  got: number
  gotAnswers: number
}

/**
 * Measures who spoke, how much, and to whom. One pass over what was said; exact. Answers to oneself are no answers.
 * People other than those who are meant, and staff, are left out.
 */
export function measureVoices(talkEntries: readonly TalkEntry[], population: Population): AllVoices {
  const tallies = new Map(
    population.people.map((id): [string, Tally] => [
      id,
      {
        words: 0,
        sentences: 0,
        syllables: 0,
        contributions: 0,
        depth: 0,
        days: new Set(),
        first: new Map(),
        waits: [],
        answered: new Map(),
        answeredBy: new Map(),
        got: 0,
        gotAnswers: 0,
      },
    ]),
  )
  const answered = new Set(population.answeredElsewhere)
  let staffWords = 0
  for (const s of talkEntries) {
    if (
      s.parentId !== null &&
      s.answersId !== null &&
      s.answersId !== s.authorId &&
      (tallies.has(s.authorId) || population.staff.has(s.authorId))
    )
      answered.add(s.parentId)
  }
  for (const s of talkEntries) {
    if (population.staff.has(s.authorId)) staffWords += s.words
    const own = tallies.get(s.authorId)
    if (!own) continue
    own.contributions++
    own.words += s.words
    own.sentences += s.sentences
    own.syllables += s.syllables
    own.depth = Math.max(own.depth, s.depth)
    own.days.add(population.dayOf(s.at))
    own.first.set(s.activityId, Math.min(own.first.get(s.activityId) ?? Infinity, s.at))
    if (answered.has(s.id)) own.gotAnswers++
    if (s.answersId === null || s.answersId === s.authorId) continue
    if (s.answersAt !== null) own.waits.push(s.at - s.answersAt)
    const other = tallies.get(s.answersId)
    if (!other) continue
    own.answered.set(s.answersId, (own.answered.get(s.answersId) ?? 0) + 1)
    other.answeredBy.set(s.authorId, (other.answeredBy.get(s.authorId) ?? 0) + 1)
    other.got++
  }
  const share = (part: number, of: number) => (of === 0 ? null : part / of)
  const voices = [...tallies].map(([personId, t]): Voice => {
    const lead = [...t.first].flatMap(([activityId, at]) => {
      const due = population.dueOf(activityId, personId)
      return due === null ? [] : [at - due]
    })
    return {
      personId,
      contributions: t.contributions,
      words: t.words,
      wordsEach: share(t.words, t.contributions),
      sentences: t.sentences,
      sentenceLength: share(t.words, t.sentences),
      ease: readingEase(t.words, t.sentences, t.syllables),
      daysActive: t.days.size,
      firstAgainstDue: median(lead),
      medianToAnswer: median(t.waits),
      depth: t.contributions === 0 ? null : t.depth,
      answered: t.answered.size,
      answeredBy: t.answeredBy.size,
      answersGot: t.got,
      shareAnswered: share(t.gotAnswers, t.contributions),
      reciprocity: share([...t.answered.keys()].filter(id => t.answeredBy.has(id)).length, t.answered.size),
    }
  })
  const words = voices.map(v => v.words)
  const [all, contributions] = [
    words.reduce((a, b) => a + b, 0),
    voices.reduce((a, v) => a + v.contributions, 0),
  ]
  let [linked, mutual] = [0, 0]
  for (const [a, t] of tallies)
    for (const b of new Set([...t.answered.keys(), ...t.answeredBy.keys()]))
      if (a < b) {
        linked++
        if (t.answered.has(b) && t.answeredBy.has(b)) mutual++
      }
  return {
    contributions,
    words: all,
    spoke: voices.filter(v => v.contributions > 0).length,
    silent: voices.filter(v => v.contributions === 0).map(v => v.personId),
    gini: gini(words),
    haveHalf: haveHalf(words),
    shareAnswered: share(
      [...tallies.values()].reduce((a, t) => a + t.gotAnswers, 0),
      contributions,
    ),
    reciprocity: share(mutual, linked),
    staffShare: share(staffWords, staffWords + all),
    voices,
  }
}
