import { initialsOf } from '#core/people/names'
import type { AuthorView } from '#shared/contributing/thread'

export interface Named {
  readonly name: string
  readonly givenName: string
  readonly familyName: string
}

/** The names of somebody, and nothing else of them. */
export const namesOf = ({ name, givenName, familyName }: Named): Named => ({ name, givenName, familyName })

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
