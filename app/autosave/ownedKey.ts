// whose words are kept and shown in this tab; set when somebody signs in, before anything is read
let owner: string | null = null

/** Says whose words this tab keeps from now on: a person's id, or null for nobody. */
export function setOwner(personId: string | null): void {
  owner = personId
}

/** Whoever's words are kept now. */
export const ownerNow = (): string | null => owner

/** A key in the browser's storage that belongs to who is signed in: on a shared computer nobody gets another's words. */
export const ownedKey = (key: string): string => (owner === null ? key : `${key}@${owner}`)
