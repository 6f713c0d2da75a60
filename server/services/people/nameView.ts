import type { AuthorView } from '#shared/contributing/thread'

export interface Named {
  readonly name: string
  readonly givenName: string
  readonly familyName: string
}

/** The names of somebody, and nothing else of them. */
export const namesOf = ({ name, givenName, familyName }: Named): Named => ({ name, givenName, familyName })

/** First letters of given and family name: what stands in a disc. */
export const initialsOf = (p: Named): string =>
  `${p.givenName[0] ?? ''}${p.familyName[0] ?? ''}`.toUpperCase()

export function authorView(
  p: Named & { readonly enrolmentId: string; readonly role: string },
  readerId: string,
): AuthorView {
  return {
    id: p.enrolmentId,
    name: p.name,
    givenName: p.givenName,
    initials: initialsOf(p),
    role: p.role === 'instructor' || p.role === 'assistant' ? p.role : null,
    isStaff: p.role === 'instructor' || p.role === 'assistant',
    isMe: p.enrolmentId === readerId,
  }
}
