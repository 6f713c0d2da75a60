/** A line of a transcript: when it is said, in seconds, and by whom where that is written. */
export interface Cue {
  readonly from: number
  readonly to: number
  readonly voice: string | null
  readonly text: string
}

/** A transcript that cannot be read, with the line at which that shows. */
export class NotWebVtt extends Error {
  constructor(
    readonly reason: 'noHeader' | 'noCues' | 'badTime',
    readonly line: number,
  ) {
    super(`webVtt: ${reason} at line ${line}`)
    this.name = 'NotWebVtt'
  }
}

const TIMES = /^((?:\d{2,}:)?[0-5]\d:[0-5]\d\.\d{3})\s+-->\s+((?:\d{2,}:)?[0-5]\d:[0-5]\d\.\d{3})(?:\s.*)?$/

/**
 * Reads WebVTT (W3C, Candidate Recommendation of 4 April 2019): cues with their times; voices from `<v Name>`; other marks
 * are left out, notes, styles and regions passed over. Cues are given in the order of their times.
 *
 * @throws {NotWebVtt} without its first line, without a cue, or with times that run backwards
 */
export function readWebVtt(source: string): Cue[] {
  const lines = source
    .replace(/^\ufeff/, '')
    .replace(/\0/g, '\ufffd')
    .split(/\r\n|\r|\n/)
  if (!/^WEBVTT(?:[ \t].*)?$/.test(lines[0] ?? '')) throw new NotWebVtt('noHeader', 1)
  const cues: Cue[] = []
  for (let i = 1; i < lines.length; i++) {
    if (!lines[i]!.includes('-->')) continue
    const times = TIMES.exec(lines[i]!.trim())
    const [from, to] = times ? [secondsOf(times[1]!), secondsOf(times[2]!)] : [0, -1]
    if (to < from) throw new NotWebVtt('badTime', i + 1)
    const said: string[] = []
    while (i + 1 < lines.length && lines[i + 1]!.trim() !== '' && !lines[i + 1]!.includes('-->'))
      said.push(lines[++i]!)
    const raw = said.join(' ')
    const text = plain(raw)
    if (text !== '')
      cues.push({ from, to, voice: plain(/<v(?:\.[^\s>]*)?\s+([^>]+)>/.exec(raw)?.[1] ?? '') || null, text })
  }
  if (cues.length === 0) throw new NotWebVtt('noCues', lines.length)
  return cues
    .map((cue, i) => [cue, i] as const)
    .sort(([a, i], [b, j]) => a.from - b.from || i - j)
    .map(([cue]) => cue)
}

const ENTITIES: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  nbsp: '\u00a0',
  lrm: '\u200e',
  rlm: '\u200f',
}
const plain = (text: string) =>
  text
    .replace(/<[^>]*>/g, '')
    .replace(/&(amp|lt|gt|nbsp|lrm|rlm);/g, (_, name: string) => ENTITIES[name]!)
    .trim()
const secondsOf = (time: string) => time.split(':').reduce((sum, part) => sum * 60 + Number(part), 0)

/** A transcript as WebVTT. */
export function writeWebVtt(cues: readonly Cue[]): string {
  const escape = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')
  return (
    [
      'WEBVTT',
      ...cues.map(
        ({ from, to, voice, text }) =>
          `${timeOf(from)} --> ${timeOf(to)}\n${voice ? `<v ${escape(voice)}>` : ''}${escape(text)}`,
      ),
    ].join('\n\n') + '\n'
  )
}
function timeOf(seconds: number): string {
  const all = Math.round(seconds * 1000)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${two(Math.floor(all / 3_600_000))}:${two(Math.floor(all / 60_000) % 60)}:${two(Math.floor(all / 1000) % 60)}.${String(all % 1000).padStart(3, '0')}`
}

/** The stretch of time in which words of a transcript are said. @param cues with their places in the text, in order */
export function timeOfPassage(
  cues: ReadonlyArray<Pick<Cue, 'from' | 'to'> & { readonly start: number; readonly end: number }>,
  start: number,
  end: number,
): readonly [number, number] | null {
  const said = cues.filter(c => c.start < end && c.end > start)
  return said.length === 0 ? null : [said[0]!.from, Math.max(...said.map(c => c.to))]
}
