import type { KindHooks } from '#server/services/contributing'
import { readablePages } from './findPages'
import { requirePagesKept } from './requirePagesKept'
import { mayReadVersion } from './requireWiki'
import { mayReach, pageOfChange, wikiAccessFor, wikiPlan } from './wikiAccess'

/** A wiki: what is written stands in pages, which have a policy of their own. */
export const wiki: KindHooks = {
  mayRead: mayReadVersion,
  changedPage: async (db, activity, id, now) => {
    const page = await pageOfChange(db, id)
    if (!page) return null
    const plan = await wikiPlan(db, activity)
    return reader => {
      const access = wikiAccessFor(plan, reader, false, now)
      return mayReach(access, page) && access.reach(page.groupId).read ? page.id : null
    }
  },
  findPages: readablePages,
  requireKept: (db, before, body) => requirePagesKept(db, before, body.audience),
}
