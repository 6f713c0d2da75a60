import { opensWith, phasesBegunNow, type BeginAct, type BeginFault } from '#core/planning/beginNow'
import type { ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { Problem } from '#server/http/problem'
import { withIdempotency } from '#server/services/idempotency'
import { loadBody } from './composer'
import { moveWithin } from './moveActivity'
import { toPhases } from './requireSound'

const SENTENCES: Readonly<Record<BeginFault, string>> = {
  draft: 'This activity is a draft, so nothing of it can begin. Publish it first.',
  notOpen: 'Hand-in has not begun, so it cannot end. Change the dates in the plan.',
  ended: 'Hand-in has ended already. Nothing was changed.',
  handInOpen: 'Hand-in has not ended. End it first; reviewing begins with it unless the plan says otherwise.',
  begun: 'Reviewing has begun already. Nothing was changed.',
  noReviewing: 'Nothing is reviewed in this activity.',
}

/**
 * Ends hand-in or begins reviewing now instead of at its time.
 * @returns the dates before, with which it is undone
 */
export function beginPhase(
  db: Database,
  actor: ActivityActor,
  write: { readonly key: string; readonly act: BeginAct; readonly tell: boolean },
  now: Date,
) {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const { opensAt, phases } = await loadBody(tx, actor.activity)
    if (actor.activity.state === 'draft') throw new Problem(409, 'draft', SENTENCES.draft)
    const begun = phasesBegunNow(toPhases(phases), write.act, now)
    if ('fault' in begun) throw new Problem(409, begun.fault, SENTENCES[begun.fault])
    const after = begun.phases.map(p => ({
      name: p.name,
      startsAt: p.startsAt.toISOString(),
      endsAt: p.endsAt.toISOString(),
    }))
    const { version: baseVersion } = actor.activity
    const moved = await moveWithin(
      tx,
      actor,
      {
        baseVersion,
        opensAt: opensWith(new Date(opensAt), begun.phases).toISOString(),
        phases: after,
        tell: write.tell,
      },
      now,
    )
    return { ...moved, before: { opensAt, phases } }
  })
}
