import { findAnchors } from '#core/kinds/reading/findAnchors'
import { makeAnchor, type TextAnchor } from '#core/kinds/reading/anchor'
import { partAt, readingOf } from '#core/kinds/reading/reading'
import { timeOfPassage } from '#core/files/webVtt'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import type { StoredNote } from '#core/kinds/reading/storedNote'
import { refusedField } from '#server/http/problem'
import type { NoteDetail } from '#shared/kinds/reading/reading'
import { currentVersion } from './library'

/**
 * A note as it is kept: its passage is looked for in the newest version of the text, whatever version its author read,
 * and taken from there, so that what is stored stands in the text.
 */
export async function requireNote(
  db: Db,
  activity: ActivityRow,
  write: NoteDetail | null,
  posting: boolean,
): Promise<StoredNote | null> {
  if (!write) {
    if (posting)
      throw refusedField(
        'note',
        'missing',
        'Choose the words your note is about first. What you wrote is kept here.',
      )
    return null
  }
  const { textId } = readingOf(activity.settings)
  const current = textId ? await currentVersion(db, textId) : null
  if (!current)
    throw refusedField(
      'note',
      'noText',
      'No text has been chosen for this reading yet. What you wrote is kept here.',
    )
  const { words, parts, cues } = current.version
  if (write.part > parts.length)
    throw refusedField(
      'note',
      'noPage',
      'This page is not in the text any more. What you wrote is kept here.',
    )
  const own = { kind: write.kind, tags: [...new Set(write.tags)], settled: null }
  const to = write.to ? await lead(words, write.to.passage) : null
  if (write.kind === 'link' && posting && !to)
    throw refusedField(
      'note',
      'noTarget',
      'Choose the passage this one leads to. What you wrote is kept here.',
    )
  const target = to
    ? { to: { part: partAt(parts, to.start).number, passage: to }, toAt: { start: to.start, end: to.end } }
    : { to: null, toAt: null }
  if (write.passage) {
    const passage = located(words, write.passage)
    if (!passage)
      throw refusedField(
        'note',
        'passageGone',
        'The words you chose are not in the text any more: a new version of it has come. Choose them again; what you wrote is kept here.',
      )
    return {
      ...own,
      ...target,
      part: partAt(parts, passage.start).number,
      passage,
      area: null,
      time: timeOfPassage(cues, passage.start, passage.end) ?? null,
      at: { start: passage.start, end: passage.end },
      how: 'here',
    }
  }
  const part = parts[write.part - 1]!
  if (write.area && part.aspect !== null)
    return {
      ...own,
      ...target,
      part: write.part,
      passage: null,
      area: write.area,
      time: null,
      at: null,
      how: 'here',
    }
  if (write.time && current.text.form === 'recording')
    return {
      ...own,
      ...target,
      part: write.part,
      passage: null,
      area: null,
      time: write.time,
      at: null,
      how: 'here',
    }
  throw refusedField(
    'note',
    'missing',
    'Choose the words your note is about first. What you wrote is kept here.',
  )
}

const lead = async (words: string, passage: TextAnchor) => {
  const found = located(words, passage)
  if (!found)
    throw refusedField(
      'note',
      'targetGone',
      'The passage this one leads to is not in the text any more. Choose it again; what you wrote is kept here.',
    )
  return found
}

function located(words: string, passage: TextAnchor): TextAnchor | null {
  if (words.slice(passage.start, passage.end) === passage.exact)
    return makeAnchor(words, passage.start, passage.end)
  const [found] = findAnchors(words, [passage])
  return found ? makeAnchor(words, found.start, found.end) : null
}
