export interface KnownPerson {
  readonly id: string
  readonly givenName: string
  readonly familyName: string
  readonly email: string
  readonly studentNumber: string | null
}
export interface FoundName {
  readonly exact: string
  readonly start: number
  readonly kind: 'name' | 'email' | 'number'
  readonly isOwn: boolean
}

interface Needle {
  readonly folded: string
  readonly kind: FoundName['kind']
  readonly personId: string
  readonly needsCapital: boolean
}

const WORD = /[\p{L}\p{N}_]/u
const KEY = 3 // units by which needles are looked up; shorter ones are not looked for

/**
 * Names, addresses and student numbers of people of the seminar inside a text, in their order: what would tell a reader
 * who wrote it, or about whom. Whole words only, whatever their case; accents may be missing. Everyone is looked for
 * alike, so that the answer tells nothing but what stands in the text.
 *
 * A name of one or two letters is a word like others and is not looked for alone; nor is a given name that also begins a
 * sentence in small letters elsewhere: it is matched with its capital only.
 *
 * @param ownId whose text it is
 * @returns shape [found], `start` in UTF-16 units; longer names take in shorter ones
 */
export const findNames = (text: string, people: readonly KnownPerson[], ownId: string): FoundName[] =>
  nameFinder(people)(text, ownId)

/**
 * The same for many texts: the people are made ready once, and a text is read through once, however many they are.
 */
export function nameFinder(people: readonly KnownPerson[]): (text: string, ownId: string) => FoundName[] {
  const needles = new Map<string, Needle[]>()
  for (const needle of people.flatMap(needlesOf)) {
    if ([...needle.folded].length < KEY) continue
    const key = needle.folded.slice(0, KEY)
    const alike = needles.get(key)
    if (alike) alike.push(needle)
    else needles.set(key, [needle])
  }
  return (text, ownId) => longest(hitsIn(text, needles, ownId))
}

function needlesOf(p: KnownPerson): Needle[] {
  const needle = (words: string, kind: FoundName['kind'], needsCapital = false): Needle => ({
    folded: fold(words),
    kind,
    personId: p.id,
    needsCapital,
  })
  return [
    needle(p.email, 'email'),
    ...(p.studentNumber ? [needle(p.studentNumber, 'number')] : []),
    needle(`${p.givenName} ${p.familyName}`, 'name'),
    needle(p.familyName, 'name', true),
    needle(p.givenName, 'name', true),
  ]
}

function hitsIn(text: string, needles: ReadonlyMap<string, readonly Needle[]>, ownId: string): FoundName[] {
  const folded = fold(text)
  const found: FoundName[] = []
  let start = 0
  let isInWord = false
  for (const character of folded) {
    const at = start
    const begins = isInWord ? undefined : needles.get(folded.slice(at, at + KEY))
    start += character.length
    isInWord = WORD.test(character)
    for (const { folded: wanted, kind, personId, needsCapital } of begins ?? []) {
      if (!folded.startsWith(wanted, at)) continue
      const after = folded.codePointAt(at + wanted.length)
      if (after !== undefined && WORD.test(String.fromCodePoint(after))) continue
      const exact = text.slice(at, at + wanted.length)
      if (needsCapital && exact[0] !== exact[0]!.toLocaleUpperCase()) continue
      found.push({ exact, start: at, kind, isOwn: personId === ownId })
    }
  }
  return found
}

/** Of names that begin within one another the first and longest, the writer's own before another's. */
function longest(found: FoundName[]): FoundName[] {
  found.sort(
    (a, b) => a.start - b.start || b.exact.length - a.exact.length || Number(b.isOwn) - Number(a.isOwn),
  )
  let end = -1
  return found.filter(f => {
    if (f.start < end) return false
    end = f.start + f.exact.length
    return true
  })
}

/** The same text in small letters, with accents off and every character in its place: one unit in, one unit out. */
function fold(text: string): string {
  let folded = ''
  for (const character of text) folded += foldedCharacter(character)
  return folded
}

function foldedCharacter(character: string): string {
  if (character < '\u0080') return character.toLowerCase()
  // a syllable of Hangul falls apart into letters, too: it stays whole
  const bare = character.normalize('NFD').replace(/\p{M}/gu, '')
  const kept = bare.length === character.length ? bare : character
  const small = kept.toLowerCase()
  return small.length === kept.length ? small : kept
}
