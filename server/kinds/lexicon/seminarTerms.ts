import { and, eq } from 'drizzle-orm'
import { lexiconOf } from '#core/kinds/lexicon/lexiconSettings'
import { termOfTheDay } from '#core/kinds/lexicon/termOfTheDay'
import { localDay, localInstant } from '#core/planning/week'
import { mayKnowOf, nothingHere, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, contributions } from '#server/database/schema'
import { readableOf, shapedThread } from '#server/services/contributing'
import { takesPartIn } from '#server/services/planning'
import type { WholeContribution } from '#shared/contributing/thread'
import type { TermCard, TermsView } from '#shared/kinds/lexicon/lexicon'

/** Terms of the seminar's lexicons, as far as their reader gets them there: what becomes a link in every text. */
export async function seminarTerms(db: Db, actor: Actor, now: Date): Promise<TermsView> {
  const terms: WholeContribution[] = []
  const homes = new Map<string, string>()
  for (const activity of await lexiconsFor(db, actor, now)) {
    if (!lexiconOf(activity.settings).linked) continue
    const { contributions: views } = await shapedThread(
      db,
      { activity, enrolment: actor.enrolment },
      now,
      false,
    )
    for (const view of views) {
      if (view.view !== 'whole' || view.state !== 'shown' || !view.term) continue
      terms.push(view)
      homes.set(view.id, activity.id)
    }
  }
  return {
    terms: terms.map(t => ({
      id: t.id,
      activityId: homes.get(t.id)!,
      forms: [t.term!.term, ...t.term!.forms],
      whole: t.term!.whole,
    })),
    ofTheDay: ofToday(terms, localDay(now, actor.seminar.timeZone), actor.seminar.timeZone),
  }
}

/** The term of the day: of those that were there when the day began, so that a new one changes nothing before the next. */
function ofToday(
  terms: ReadonlyArray<{ readonly id: string; readonly shownAt: string }>,
  day: string,
  timeZone: string,
): string | null {
  const begins = localInstant(day, '00:00', timeZone)
  const older = terms.filter(t => new Date(t.shownAt) < begins)
  const [first] = [...terms].sort((a, b) => a.shownAt.localeCompare(b.shownAt))
  return older.length > 0
    ? termOfTheDay(
        older.map(t => t.id),
        day,
      )
    : (first?.id ?? null)
}

async function lexiconsFor(db: Db, { seminar, enrolment }: Actor, now: Date): Promise<ActivityRow[]> {
  const rows = await db
    .select()
    .from(activities)
    .where(
      and(
        takesPartIn(db, seminar.id),
        eq(activities.kind, 'lexicon'),
        eq(activities.state, 'published'),
        eq(activities.isTemplate, false),
      ),
    )
    .orderBy(activities.position)
  const open: ActivityRow[] = []
  for (const activity of rows)
    if (activity.opensAt <= now && (await mayKnowOf(db, activity, enrolment, now))) open.push(activity)
  return open
}

/** One term with its definition, to somebody who gets it in its lexicon. */
export async function termCard(db: Db, actor: Actor, termId: string, now: Date): Promise<TermCard> {
  const [found] = await db
    .select({ activityId: contributions.activityId, html: contributions.html })
    .from(contributions)
    .where(and(eq(contributions.id, termId), eq(contributions.type, 'term')))
  const activity = found && (await lexiconsFor(db, actor, now)).find(a => a.id === found.activityId)
  if (!activity) throw nothingHere()
  const {
    views: [view],
  } = await readableOf(db, { activity, enrolment: actor.enrolment }, [termId], now)
  if (view?.view !== 'whole' || view.state !== 'shown' || !view.term) throw nothingHere()
  return { id: termId, activityId: activity.id, term: view.term, html: found!.html, author: view.author }
}
