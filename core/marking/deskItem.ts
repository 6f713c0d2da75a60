import type { ContributionType } from '#core/contributing/contribution'
import { KINDS } from '#core/kinds'
import type { ActivityKind } from '#core/kinds/kind'
import type { MarginKind } from '#core/kinds/reading/reading'

/** One contribution of a record, as far as it decides what it is to whoever marks it. */
export interface DeskSnapshot {
  readonly type: ContributionType
  readonly title: string | null
  readonly answers: { readonly name: string } | null
  readonly change: { readonly page: string; readonly number: number } | null
  readonly about: { readonly page: string } | null
  readonly noted: { readonly kind: MarginKind; readonly where: string; readonly isSet: boolean } | null
}

/** What lies on the desk: one thing of a student's record, as it is announced above its text. */
export type DeskItem =
  | { readonly is: 'version'; readonly page: string; readonly number: number }
  | { readonly is: 'pageComment'; readonly page: string }
  | { readonly is: 'note'; readonly kind: MarginKind; readonly where: string; readonly isSet: boolean }
  | { readonly is: 'term'; readonly title: string }
  | { readonly is: 'review'; readonly of: string }
  | { readonly is: 'reviewOfTeammate' }
  | { readonly is: 'work' } // handed in
  | { readonly is: 'answer'; readonly word: string; readonly to: string }
  | { readonly is: 'entry'; readonly word: string; readonly title: string | null }

/** What a contribution is on the desk of an activity of this kind. */
export function deskItemOf(item: DeskSnapshot, kind: ActivityKind): DeskItem {
  const { handsIn, entryWord, answerWord } = KINDS[kind]
  const { type, title, answers, change, about, noted } = item
  if (change) return { is: 'version', page: change.page, number: change.number }
  if (about) return { is: 'pageComment', page: about.page }
  if (noted) return { is: 'note', kind: noted.kind, where: noted.where, isSet: noted.isSet }
  if (type === 'term') return { is: 'term', title: title ?? '' }
  if (type === 'review') return answers ? { is: 'review', of: answers.name } : { is: 'reviewOfTeammate' }
  if (handsIn) return { is: 'work' }
  if (answers) return { is: 'answer', word: answerWord[0], to: answers.name }
  return { is: 'entry', word: entryWord[0], title }
}
