import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { paragraphs } from '#core/contributing/richText'
import type { Database } from '#server/database/client'
import * as t from '#server/database/schema'
import { commentOnPage } from '#server/kinds/wiki/comments'
import { readMarkdownPage } from '#server/kinds/wiki/markdown/readPage'
import { savePageDraft } from '#server/kinds/wiki/pageDraft'
import { claimPage, makePage } from '#server/kinds/wiki/pages'
import { restoreVersion, saveVersion } from '#server/kinds/wiki/saveVersion'
import { PageDoc, RichDoc } from '#shared/contributing/richDoc'
import type { Day } from '../activities'
import { actorIn } from '../returns'
import { cityPages } from './cityPages'
import type { DemoPage } from './page'
import { walls } from './walls'

/** The wikis of the demo, saved version by version and comment by comment by the application's own code, at their times. */
export class DemoWikis {
  constructor(
    private readonly db: Database,
    private readonly seminarId: string,
    private readonly enrolment: ReadonlyMap<string, string>,
    private readonly activity: ReadonlyMap<string, string>,
    private readonly at: (when: Day) => Date,
  ) {}

  async all(): Promise<void> {
    await this.wiki('walls', walls)
    await this.wiki('city', cityPages)
    await this.db.delete(t.pageWriters)
  }

  private async wiki(key: string, pages: readonly DemoPage[]) {
    const activityId = this.activity.get(key)!
    const [activity] = await this.db.select().from(t.activities).where(eq(t.activities.id, activityId))
    if (activity!.audience.kind !== 'groups') throw new Error('demo: wikis are written in groups')
    const groups = new Map(
      (
        await this.db.select().from(t.groups).where(eq(t.groups.groupPlanId, activity!.audience.groupPlanId))
      ).map(g => [g.title, g.id]),
    )
    const acts: Array<{ at: Date; run: () => Promise<unknown> }> = []
    const ids = new Map<string, string>()
    const commentIds = new Map<string, string>()
    for (const page of pages) {
      const id = v7()
      ids.set(`${page.group}/${page.title}`, id)
      const as = (who: string) => actorIn(this.db, this.seminarId, this.enrolment.get(who)!, activityId)
      const add = (when: Day, run: (now: Date) => Promise<unknown>) => {
        const now = this.at(when)
        acts.push({ at: now, run: () => run(now) })
      }
      add(page.made[1], async now =>
        makePage(
          this.db,
          await as(page.made[0]),
          {
            id,
            groupId: groups.get(page.group)!,
            title: page.title,
            parentId: page.under ? ids.get(`${page.group}/${page.under}`)! : null,
          },
          now,
        ),
      )
      if (page.claimedBy)
        add(page.made[1], async now => claimPage(this.db, await as(page.claimedBy!), id, true, now))
      let text = ''
      for (const [i, version] of page.versions.entries()) {
        const versionText = () => {
          if ('text' in version) return version.text
          if ('restores' in version) return ''
          return edited(text, version.edits, page.title)
        }
        text = versionText()
        const { doc } = readMarkdownPage(page.title, text)
        add(version.at, async now => {
          const actor = await as(version.by)
          if ('restores' in version)
            return restoreVersion(this.db, actor, id, version.restores, { key: v7(), base: i }, now)
          return saveVersion(
            this.db,
            actor,
            id,
            {
              key: v7(),
              doc: PageDoc.parse(doc),
              base: i,
              summary: version.says,
              actsOn: (version.actsOn ?? []).map(c => required(commentIds, c)),
              chosen: [],
            },
            now,
          )
        })
      }
      for (const comment of page.comments ?? []) {
        add(comment.at, async now => {
          const { id: made } = await commentOnPage(
            this.db,
            await as(comment.by),
            id,
            {
              key: v7(),
              doc: RichDoc.parse(paragraphs(comment.text)),
              passage: comment.on ? { exact: comment.on, prefix: '', suffix: '' } : null,
              parentId: comment.answers ? required(commentIds, comment.answers) : null,
            },
            now,
          )
          commentIds.set(comment.id, made)
        })
      }
      if (page.draft) {
        const { doc } = readMarkdownPage(page.title, edited(text, page.draft.edits, page.title))
        const { by } = page.draft
        add(page.draft.at, async now =>
          savePageDraft(
            this.db,
            await as(by),
            id,
            { doc: PageDoc.parse(doc), base: page.versions.length, baseVersion: null },
            now,
          ),
        )
      }
    }
    for (const act of acts.sort((x, y) => x.at.getTime() - y.at.getTime())) await act.run()
  }
}

function edited(text: string, edits: ReadonlyArray<readonly [string, string]>, title: string): string {
  return edits.reduce((now, [from, to]) => {
    if (!now.includes(from))
      throw new Error(`demo: “${from}” is not on the page “${title}” when it is changed`)
    return now.replace(from, () => to)
  }, text)
}

function required(ids: ReadonlyMap<string, string>, key: string): string {
  const found = ids.get(key)
  if (!found) throw new Error(`demo: the comment ${key} is not made yet`)
  return found
}
