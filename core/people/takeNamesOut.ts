/** What somebody is called. */
export interface Naming {
  readonly given: string
  readonly family: string
  readonly email?: string
}
const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
const whole = (words: string) =>
  new RegExp(
    `(?<![\\p{L}\\p{M}\\p{N}])${escaped(words).replace(/\s+/g, '\\s+')}(?![\\p{L}\\p{M}\\p{N}])`,
    words.includes(' ') ? 'giu' : 'gu',
  )

/** Word for word, so that a text has as many words as before, at the same places: "Ada Brook" becomes "former student". */
function instead(found: string): string {
  const words = found.match(/[\p{L}\p{M}\p{N}]+/gu)!.length
  let at = 0
  return found.replace(/[\p{L}\p{M}\p{N}]+/gu, () => (++at === words ? 'student' : 'former'))
}

/** Addresses of pages and of mail, without the stop that ends a sentence. */
const ADDRESS =
  /(?:https?:\/\/|www\.)[^\s<>"'“”]*[^\s<>"'“”.,;:!?)\]]|[^\s<>"'“”@,;:()[\]]+@[^\s<>"'“”@,;:()[\]]+\.\p{L}{2,}/giu
const NO_PAGE = 'https://erased.invalid/'
const NO_MAIL = 'former.student@erased.invalid'
const letters = (text: string) =>
  text
    .normalize('NFD')
    .replace(/[^\p{L}]/gu, '')
    .toLowerCase()

/** An address is cut nowhere: it goes whole where it is theirs, or names them in full, and stays whole elsewhere. */
function addressWithout(address: string, { given, family, email }: Naming): string {
  const isMail = !/^(?:https?:\/\/|www\.)/i.test(address)
  const own = email !== undefined && address.toLowerCase() === email.toLowerCase()
  const held = letters(decoded(address))
  const isNamed =
    letters(given) !== '' &&
    letters(family) !== '' &&
    (held.includes(letters(given + family)) || held.includes(letters(family + given)))
  if (!own && !isNamed) return address
  return isMail ? NO_MAIL : NO_PAGE
}

function decoded(address: string): string {
  try {
    return decodeURIComponent(address)
  } catch {
    return address // a sign of per cent that begins nothing
  }
}

/** A text in which addresses are changed by one rule, and what stands between them by another. */
function aroundAddresses(
  text: string,
  between: (part: string) => string,
  address: (part: string) => string,
): string {
  let end = 0
  let out = ''
  for (const found of text.matchAll(ADDRESS)) {
    out += between(text.slice(end, found.index)) + address(found[0])
    end = found.index + found[0].length
  }
  return out + between(text.slice(end))
}

/**
 * Takes somebody’s name out of a text: in full, either way round, and the family name by itself as it is written. The
 * given name alone is taken out only where it points to them: elsewhere it may be anybody’s, or a word.
 */
export function takeNamesOut(text: string, name: Naming, pointsToThem: boolean): string {
  const { given, family } = name
  const forms = [
    `${given} ${family}`,
    `${family}, ${given}`,
    `${family} ${given}`,
    family,
    ...(pointsToThem ? [given] : []),
  ].filter(f => /[\p{L}\p{N}]/u.test(f))
  return aroundAddresses(
    text,
    part => forms.reduce((now, form) => now.replace(whole(form), instead), part),
    address => addressWithout(address, name),
  )
}

/** The same in all texts of a value as JSON has it; keys stay. */
export function takeNamesOutOf<T>(value: T, name: Naming, pointsToThem: boolean): T {
  if (typeof value === 'string') return takeNamesOut(value, name, pointsToThem) as T
  if (Array.isArray(value)) return value.map(v => takeNamesOutOf(v as unknown, name, pointsToThem)) as T
  if (typeof value === 'object' && value !== null && !(value instanceof Date))
    return Object.fromEntries(
      Object.entries(value).map(([k, v]) => [k, takeNamesOutOf(v as unknown, name, pointsToThem)]),
    ) as T
  return value
}

export interface GivenAlone {
  readonly before: string
  readonly exact: string
  readonly after: string
}
const AROUND = 60 // characters shown on either side

/** Where the given name stands by itself in a text, with what stands around it; the full name is not meant. */
export function givenAlone(text: string, name: Naming): GivenAlone[] {
  if (!/[\p{L}\p{N}]/u.test(name.given)) return []
  const left = takeNamesOut(text, name, false)
  const places: GivenAlone[] = []
  const bare = aroundAddresses(
    left,
    part => part,
    address => ' '.repeat(address.length),
  )
  for (const found of bare.matchAll(whole(name.given))) {
    const end = found.index + found[0].length
    places.push({
      before: left.slice(Math.max(0, found.index - AROUND), found.index),
      exact: found[0],
      after: left.slice(end, end + AROUND),
    })
  }
  return places
}
