import { KINDS } from '#core/kinds'
import type { PlanActivity } from '#shared/planning/plan'
import { STANDING_WORDS } from './standingWords'

export interface PlanNote {
  readonly strong: string
  readonly rest: string
}
interface Dates {
  readonly day: (at: string) => string
  readonly date: (at: string) => string
}

/** What is said of an activity beside its bar: to staff how far its students are, to a student their own standing. */
export function noteOf(activity: PlanActivity, now: string, { day, date }: Dates): PlanNote {
  const { counts, planning, state } = activity
  if (counts && state === 'published') {
    const { ready, held, returned, underWay } = counts
    if (!planning?.byRubric) {
      const written = ready + held + returned + underWay
      if (written === 0) return { strong: '', rest: 'nobody has written' }
      return { strong: '', rest: written === 1 ? 'one has written' : `${written} have written` }
    }
    const rest = [
      held > 0 && `${held} held`,
      returned > 0 && `${returned} returned`,
      underWay > 0 && `${underWay} under way`,
    ]
      .filter(Boolean)
      .join(' · ')
    if (ready === 0) return { strong: '', rest }
    return { strong: `${ready} ready to mark`, rest: rest && ` · ${rest}` }
  }
  if (state === 'draft') {
    const starter =
      planning && KINDS[activity.kind].wantsStarter && !planning.hasStarter ? ' · no starter yet' : ''
    return { strong: '', rest: `would open ${date(activity.opensAt)}${starter}` }
  }
  if (activity.opensAt > now) return { strong: '', rest: `opens ${day(activity.opensAt)}` }
  return { strong: '', rest: activity.standing ? STANDING_WORDS[activity.standing] : '' }
}
