import type { RosterColumn } from './rosterHeadings'

/** One person as a roster file has them. */
export interface RosterRow {
  readonly line: number // of the file, 1 for the first
  readonly email: string // lower case
  readonly givenName: string
  readonly familyName: string // empty: one name alone
  readonly section: string | null
  readonly group: string | null // the title of their group, where a column holds groups
  readonly studentNumber: string | null
  readonly role: 'student' | 'assistant' | 'instructor' | 'observer'
}

/** Why a row, or a whole file, could not be read. Wording is the reader's business. */
export type RosterFault =
  | { readonly code: 'noHeader'; readonly line: number } // no column for e-mail addresses
  | { readonly code: 'noNames'; readonly line: number } // no column for names
  | { readonly code: 'empty'; readonly line: number }
  | { readonly code: 'tooMany'; readonly line: number }
  | { readonly code: 'openQuote' | 'badQuote'; readonly line: number }
  | { readonly code: 'columns'; readonly line: number; readonly have: number; readonly want: number }
  | { readonly code: 'noEmail' | 'noName'; readonly line: number }
  | {
      readonly code: 'badEmail' | 'badRole' | 'formula' | 'encoding' | 'tooLong'
      readonly line: number
      readonly value: string
    }
  | { readonly code: 'twice'; readonly line: number; readonly value: string; readonly first: number }
  | { readonly code: 'elsewhere'; readonly line: number; readonly value: string } // a person whose name and address are not this seminar's
  | { readonly code: 'missingFile'; readonly line: 0; readonly value: string } // of a OneRoster archive
  | { readonly code: 'badReference'; readonly line: number; readonly value: string } // a row names another that is not there
  | { readonly code: 'notAnArchive'; readonly line: 0 }

export interface Roster {
  readonly rows: readonly RosterRow[]
  readonly faults: readonly RosterFault[]
  readonly columns?: readonly RosterHeading[] // of a table, in its order
}

/** A column of a table, and what was read from it; null: nothing. */
export interface RosterHeading {
  readonly heading: string
  readonly field: RosterColumn | null
}

/** Most people one file may bring. */
export const MOST_ROWS = 20_000
