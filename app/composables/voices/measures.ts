import type { OneVoice } from '#shared/voices/student'
import type { VoiceView } from '#shared/voices/voices'

/** Hours and days as people say them: "8 d 3 h", "40 min". */
export function spanWords(milliseconds: number): string {
  const minutes = Math.round(Math.abs(milliseconds) / 60_000)
  if (minutes < 60) return `${minutes} min`
  const hours = Math.floor(minutes / 60)
  return hours < 24 ? `${hours} h` : `${Math.floor(hours / 24)} d${hours % 24 > 0 ? ` ${hours % 24} h` : ''}`
}
export interface Measure {
  readonly key: string
  readonly label: string
  readonly explained: string
  readonly of: (v: VoiceView) => number | null
  readonly show: (v: VoiceView) => string
  readonly risingFirst?: boolean
}
const number = (n: number | null, digits = 0) =>
  n === null ? '–' : n.toLocaleString('en', { maximumFractionDigits: digits, minimumFractionDigits: digits })
const plain = (
  key: string,
  label: string,
  explained: string,
  of: (v: VoiceView) => number | null,
  digits = 0,
): Measure => ({ key, label, explained, of, show: v => number(of(v), digits) })
const percent = (
  key: string,
  label: string,
  explained: string,
  of: (v: VoiceView) => number | null,
): Measure => ({
  key,
  label,
  explained,
  of,
  show: v => (of(v) === null ? '–' : `${Math.round(of(v)! * 100)} %`),
})

/** The columns of the table of voices, after the student. */
export const MEASURES: readonly Measure[] = [
  plain('contributions', 'contributions', 'what was shown in this span', v => v.contributions),
  plain('words', 'words', 'quotations left out', v => v.words),
  plain('wordsEach', 'per post', 'words of a contribution, mean', v => v.wordsEach),
  plain('answered', 'classmates answered', 'different classmates', v => v.answered),
  plain('answeredBy', 'answered by', 'different classmates', v => v.answeredBy),
  percent(
    'shareAnswered',
    'found an answer',
    'of own contributions, those somebody else answered',
    v => v.shareAnswered,
  ),
  percent(
    'reciprocity',
    'answered back',
    'of the classmates answered, those who answered back',
    v => v.reciprocity,
  ),
  {
    key: 'medianToAnswer',
    label: 'time to answer',
    explained: 'from what was answered to the answer, median',
    of: v => v.medianToAnswer,
    show: v => (v.medianToAnswer === null ? '–' : spanWords(v.medianToAnswer)),
    risingFirst: true,
  },
  plain('depth', 'depth', 'deepest place in a thread, 0 at its top', v => v.depth),
  plain('daysActive', 'days active', 'days with a contribution', v => v.daysActive),
  {
    key: 'firstAgainstDue',
    label: 'first post vs due',
    explained: 'first contribution against when one was due; of several activities the median',
    of: v => v.firstAgainstDue,
    show: v =>
      v.firstAgainstDue === null
        ? '–'
        : `${spanWords(v.firstAgainstDue)} ${v.firstAgainstDue <= 0 ? 'early' : 'late'}`,
    risingFirst: true,
  },
  plain('sentenceLength', 'sentence length', 'words, mean', v => v.sentenceLength, 1),
  plain('ease', 'reading ease', 'Flesch: 100 very easy, below 30 very hard', v => v.ease),
]

/** A student's measures, each beside what is usual (the median of everyone). */
export const measuresBeside = ({ voice, typical }: OneVoice) =>
  MEASURES.map(m => ({
    ...m,
    own: m.show(voice),
    usual: m.show({ ...voice, [m.key]: typical[m.key as keyof OneVoice['typical']] ?? null }),
  }))
