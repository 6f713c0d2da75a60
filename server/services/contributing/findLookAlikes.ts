import { and, asc, eq, ne } from 'drizzle-orm'
import { lookAlikes } from '#core/contributing/lookAlikes'
import { plainText } from '#core/contributing/richText'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, enrolments, persons } from '#server/database/schema'
import type { LookAlikesView } from '#shared/contributing/lookAlikes'

const LEAST = 0.2 // of the words of one of the two
const MOST = 20 // pairs told

/** Pairs of contributions by different people that share wording, quotations and the brief's own words left out. A hint, never a verdict. */
export async function findLookAlikes(
  db: Db,
  { activity }: Actor & { readonly activity: ActivityRow },
): Promise<LookAlikesView> {
  const rows = await db
    .select({
      id: contributions.id,
      authorId: contributions.authorId,
      author: persons.name,
      doc: contributions.doc,
      html: contributions.html,
      shownAt: contributions.shownAt,
    })
    .from(contributions)
    .innerJoin(enrolments, eq(enrolments.id, contributions.authorId))
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(
      and(
        eq(contributions.activityId, activity.id),
        eq(contributions.state, 'shown'),
        eq(enrolments.role, 'student'),
        ne(enrolments.state, 'practice'),
      ),
    )
    .orderBy(asc(contributions.seq))
  const own = new Map(rows.map(r => [r.id, { ...r, text: plainText(r.doc, { leaveOutQuotations: true }) }]))
  const pairs = lookAlikes(
    [...own.values()].map(({ id, text }) => ({ id, text })),
    {
      least: LEAST,
      readings: [plainText(activity.brief), ...(activity.starter ? [plainText(activity.starter)] : [])],
    },
  )
    .filter(p => own.get(p.first)!.authorId !== own.get(p.second)!.authorId)
    .slice(0, MOST)
  return {
    pairs: pairs.map(p => {
      const [a, b] = [own.get(p.first)!, own.get(p.second)!]
      const side = (c: typeof a, share: number) => ({
        id: c.id,
        author: c.author,
        shownAt: c.shownAt!.toISOString(),
        html: c.html,
        share,
      })
      return {
        first: side(a, p.ofFirst),
        second: side(b, p.ofSecond),
        passages: p.passages.map(x => ({
          first: x.text,
          second: b.text.slice(x.inSecond, x.inSecond + x.text.length),
        })),
      }
    }),
  }
}
