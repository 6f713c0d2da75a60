import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import { composedAudience, peopleOf } from './composedAudience'

/** How many students take part: the audience at home, and everyone of the seminars it is held with. */
export const meantPeople = (view: ComposerView, body: ActivityBody): number =>
  peopleOf(view, body).filter(composedAudience(view, body).isMeant).length
