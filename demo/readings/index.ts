import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { eq, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { makeAnchor } from '#core/kinds/reading/anchor'
import { partAt, type ReadingSettings } from '#core/kinds/reading/reading'
import { readableText } from '#core/kinds/reading/readableText'
import { paragraphs } from '#core/contributing/richText'
import type { Database } from '#server/database/client'
import * as t from '#server/database/schema'
import { currentVersion, keepText } from '#server/kinds/reading/library'
import { readText } from '#server/kinds/reading/readText'
import { setSettled } from '#server/kinds/reading/readReading'
import { postContribution } from '#server/services/contributing/writing/postContribution'
import { RichDoc } from '#shared/contributing/richDoc'
import type { Day } from '../activities'
import { actorIn } from '../returns'
import { CALM_WATER, calmWater } from './calmWater'
import { calmNotes, pilotNotes, rollNotes, type DemoNote } from './notes'
import { TOLL_ROLL } from './tollRoll'
import { tollRollPdf } from './tollRollPdf'

/** The readings of the demo: texts added to the library and notes put beside them by the application's own code, at their times. */
export class DemoReadings {
  constructor(
    private readonly db: Database,
    private readonly seminarId: string,
    private readonly enrolment: ReadonlyMap<string, string>,
    private readonly activity: ReadonlyMap<string, string>,
    private readonly at: (when: Day) => Date,
  ) {}

  async all(): Promise<void> {
    const files = join(import.meta.dirname, 'files')
    const roll = await this.text('tollroll', TOLL_ROLL, await tollRollPdf(), 'toll-roll.pdf', null, [
      1,
      3,
      '10:00',
    ])
    const calm = await this.text('calm', CALM_WATER, Buffer.from(calmWater), 'who-may-wait.md', null, [
      5,
      3,
      '10:00',
    ])
    const pilot = await this.text(
      'pilot',
      { title: 'A pilot remembers', credit: 'Port Amara, spoken for the town’s archive' },
      readFileSync(join(files, 'voice-pilot.weba')),
      'voice-pilot.weba',
      readFileSync(join(files, 'pilot.vtt'), 'utf8'),
      [5, 4, '10:00'],
    )
    await this.set('tollroll', { textId: roll, from: 3, to: 7, writeFirst: 'none' })
    await this.set('calm', { textId: calm, from: 1, to: null, writeFirst: 'none' })
    await this.set('pilot', { textId: pilot, from: 1, to: null, writeFirst: 'none' })
    await this.notes('tollroll', roll, rollNotes)
    await this.notes('calm', calm, calmNotes)
    await this.notes('pilot', pilot, pilotNotes)
  }

  private async text(
    key: string,
    about: { readonly title: string; readonly credit: string },
    bytes: Buffer,
    name: string,
    transcript: string | null,
    when: Day,
  ): Promise<string> {
    const actor = await actorIn(this.db, this.seminarId, this.enrolment.get('ines')!, this.activity.get(key)!)
    const id = v7()
    await keepText(
      this.db,
      actor,
      { id, ...about, supplier: null },
      await readText(bytes, name, transcript),
      { bytes, name, transcript },
      this.at(when),
    )
    return id
  }

  private async set(key: string, reading: ReadingSettings): Promise<void> {
    await this.db
      .update(t.activities)
      .set({ settings: sql`${t.activities.settings} || ${JSON.stringify({ reading })}::jsonb` })
      .where(eq(t.activities.id, this.activity.get(key)!))
  }

  private async notes(key: string, textId: string, notes: readonly DemoNote[]): Promise<void> {
    const activityId = this.activity.get(key)!
    const { version } = (await currentVersion(this.db, textId))!
    const passage = (words: string) => {
      const exact = readableText(words).text
      const start = version.words.indexOf(exact)
      if (start < 0) throw new Error(`demo: “${words}” is not in ${key}`)
      return {
        part: partAt(version.parts, start).number,
        passage: makeAnchor(version.words, start, start + exact.length),
      }
    }
    const as = (who: string) => actorIn(this.db, this.seminarId, this.enrolment.get(who)!, activityId)
    const base = {
      slot: '',
      promptId: null,
      title: null,
      term: null,
      fileIds: [],
      takesUp: null,
      showAt: null,
    }
    const acts: Array<{ at: Date; run: (now: Date) => Promise<void> }> = []
    for (const note of notes) {
      let id = ''
      acts.push({
        at: this.at(note.at),
        run: async now => {
          const at = passage(note.on)
          ;({ id } = await postContribution(
            this.db,
            await as(note.by),
            {
              ...base,
              key: v7(),
              parentId: null,
              doc: RichDoc.parse(paragraphs(note.text)),
              note: {
                kind: note.kind ?? 'note',
                ...at,
                area: null,
                time: null,
                tags: [...(note.tags ?? [])],
                to: note.to ? passage(note.to) : null,
              },
            },
            now,
          ))
          for (const who of note.nods ?? [])
            await this.db.insert(t.nods).values({
              seminarId: this.seminarId,
              contributionId: id,
              enrolmentId: this.enrolment.get(who)!,
              madeAt: now,
            })
        },
      })
      for (const [by, when, text] of note.replies ?? [])
        acts.push({
          at: this.at(when),
          run: async now => {
            await postContribution(
              this.db,
              await as(by),
              { ...base, key: v7(), parentId: id, note: null, doc: RichDoc.parse(paragraphs(text)) },
              now,
            )
          },
        })
      const last = note.replies?.at(-1)
      if (note.settled && last)
        acts.push({
          at: new Date(this.at(last[1]).getTime() + 60_000),
          run: async now => {
            const [contribution] = await this.db
              .select()
              .from(t.contributions)
              .where(eq(t.contributions.id, id))
            await setSettled(this.db, { ...(await as(note.by)), contribution: contribution! }, true, now)
          },
        })
    }
    for (const act of acts.sort((a, b) => a.at.getTime() - b.at.getTime())) await act.run(act.at)
  }
}
