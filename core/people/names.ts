/** What a person is called, in parts. */
export interface NameParts {
  readonly givenName: string
  readonly familyName: string // empty: they have one name alone
}

/** Somebody's names as they are kept. */
export interface KeptNames extends NameParts {
  readonly name: string // as it is said: whole
}

/** Names as they are kept: whoever has one name alone has it in both places, because lists are sorted by the family name. */
export function keptNames({ givenName, familyName }: NameParts): KeptNames {
  const [given, family] = [givenName.trim(), familyName.trim()]
  const only = given === '' ? family : given
  if (given === '' || family === '') return { givenName: only, familyName: only, name: only }
  return { givenName: given, familyName: family, name: `${given} ${family}` }
}

/** Whether somebody has one name alone. */
const hasOneName = ({ name, familyName }: KeptNames): boolean => name === familyName

/** Names as they are asked for: of one name alone the family name is empty. */
export const nameParts = (kept: KeptNames): NameParts => ({
  givenName: kept.givenName,
  familyName: hasOneName(kept) ? '' : kept.familyName,
})

/** First letters of the given and the family name: what stands in a disc. */
export const initialsOf = (kept: KeptNames): string => {
  const { givenName, familyName } = nameParts(kept)
  return `${givenName[0] ?? ''}${familyName[0] ?? ''}`.toUpperCase()
}

/** A name as lists have it, the family name first: "Brandt, Liv", or one name alone. */
export const listName = (kept: KeptNames): string =>
  hasOneName(kept) ? kept.name : `${kept.familyName}, ${kept.givenName}`
