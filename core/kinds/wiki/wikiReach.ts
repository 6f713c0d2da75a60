import type { ScheduleState } from '#core/planning/schedule'
import type { ReaderRole } from '#core/contributing/readerView'
import type { WikiSettings } from './wikiSettings'

export interface WikiSnapshot {
  readonly role: ReaderRole
  readonly isOwn: boolean // the class's wiki, or that of the reader's group
  readonly othersRead: WikiSettings['othersRead']
  readonly time: ScheduleState // for this reader, an extension counted
  readonly archived: boolean
}

export interface WikiReach {
  readonly read: boolean
  readonly write: boolean
  readonly comment: boolean
}

const NOTHING: WikiReach = { read: false, write: false, comment: false }

/**
 * What somebody may do in one wiki. Precedence:
 * 1. before it opens, nothing but for staff, who do everything as long as the seminar is not archived;
 * 2. one's own is always read, another group's as the setting says; "after writing" begins when the writing phases are over;
 * 3. members write in phases of writing and revising, and comment in every working phase; observers only read;
 * 4. once it is closed nothing is added.
 */
export function wikiReach(s: WikiSnapshot): WikiReach {
  if (s.role === 'staff') return { read: true, write: !s.archived, comment: !s.archived }
  if (s.time.kind === 'before') return NOTHING
  if (!s.isOwn || s.role === 'observer') {
    const over = s.time.kind === 'closed'
    const read =
      s.role === 'observer' && s.isOwn
        ? true
        : s.othersRead === 'always' || (s.othersRead === 'afterWriting' && over)
    return { read, write: false, comment: false }
  }
  const working = s.time.kind === 'working' && !s.archived ? s.time.phase.name : null
  return { read: true, write: working === 'write' || working === 'revise', comment: working !== null }
}
