import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import { USUAL_LEXICON } from '#core/kinds/lexicon/lexiconSettings'
import { settingsOfKind } from '#core/kinds/ownSettings'
import { USUAL_READING } from '#core/kinds/reading/reading'
import { USUAL_REVIEW } from '#core/kinds/review/reviewSettings'
import { USUAL_WIKI } from '#core/kinds/wiki/wikiSettings'
import { USUAL_TALK } from '#core/contributing/talkSettings'
import { testDatabase } from '#server/testing/database'
import * as t from './schema'

const migration = readFileSync(join(import.meta.dirname, 'migrations/0027_settings_of_own_kind.sql'), 'utf8')
/** As an activity was stored before, whatever its kind: with the settings of every kind. */
const OTHERS = {
  ...USUAL_TALK,
  ...{ threads: 'staff', replies: 'top', opening: 'class', layout: 'own', indexBy: 'month' },
  ...{ review: USUAL_REVIEW, wiki: USUAL_WIKI, lexicon: USUAL_LEXICON, reading: USUAL_READING },
}

describe('the migration to settings of the own kind', () => {
  let database: Awaited<ReturnType<typeof testDatabase>>
  beforeAll(async () => {
    database = await testDatabase()
  })
  afterAll(() => database.drop())
  const stored = () =>
    database.db
      .select({ id: t.activities.id, kind: t.activities.kind, settings: t.activities.settings })
      .from(t.activities)
      .orderBy(t.activities.id)

  it('keeps what was set of the own kind and of every kind, and lets go of the rest', async () => {
    const before = await stored()
    expect(new Set(before.map(a => a.kind))).toEqual(new Set(ACTIVITY_KINDS))
    await database.db.execute(
      sql`update activities set settings = ${JSON.stringify(OTHERS)}::jsonb || settings`,
    )
    await database.db.execute(sql.raw(migration))
    const after = await stored()
    expect(after).toEqual(
      before.map(({ id, kind, settings }) => ({
        ...{ id, kind },
        settings: settingsOfKind(kind, { ...OTHERS, ...settings }),
      })),
    )
    await database.db.execute(sql.raw(migration))
    expect(await stored()).toEqual(after)
  })
})
