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

const WORD = /[\p{L}\p{N}_]/u

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
export function findNames(text: string, people: readonly KnownPerson[], ownId: string): FoundName[] {
  const folded = fold(text)
  const found: FoundName[] = []
  const search = (needle: string, kind: FoundName['kind'], person: KnownPerson, needsCapital: boolean) => {
    const wanted = fold(needle).toLocaleLowerCase()
    if ([...wanted].length < 3) return
    const lower = folded.toLocaleLowerCase()
    for (let at = lower.indexOf(wanted); at >= 0; at = lower.indexOf(wanted, at + 1)) {
      const [before, after] = [
        [...folded.slice(Math.max(0, at - 2), at)].at(-1) ?? '',
        [...folded.slice(at + wanted.length, at + wanted.length + 2)][0] ?? '',
      ]
      if (WORD.test(before) || WORD.test(after)) continue
      const exact = text.slice(at, at + wanted.length)
      if (needsCapital && exact[0] !== exact[0]!.toLocaleUpperCase()) continue
      found.push({ exact, start: at, kind, isOwn: person.id === ownId })
    }
  }
  for (const p of people) {
    search(p.email, 'email', p, false)
    if (p.studentNumber) search(p.studentNumber, 'number', p, false)
    search(`${p.givenName} ${p.familyName}`, 'name', p, false)
    search(p.familyName, 'name', p, true)
    search(p.givenName, 'name', p, true)
  }
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

/** The same text with accents off and every character in its place: one unit in, one unit out. */
const fold = (text: string): string =>
  text.normalize('NFC').length === text.length
    ? [...text].map(c => (c.length === 1 ? c.normalize('NFD')[0]! : c)).join('')
    : text
