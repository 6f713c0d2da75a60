import { capital, inWords, listed, plural } from '#core/language'
import type { UnkeptRule } from '#core/people/watchRules'
import type { GroupPlanView } from '#shared/people/groups'

/** What a move means for what somebody has written in the activities of a plan. */
export function movedWords(
  { name, to }: { readonly name: string; readonly to: string | null },
  work: ReadonlyArray<Pick<GroupPlanView['work'][number], 'activity' | 'contributions'>>,
): string {
  const moved = `${name} is ${to ? `in ${to} now` : 'in no group now'}.`
  if (work.length === 0) return moved
  const n = work.reduce((sum, w) => sum + w.contributions, 0)
  const where = listed(work.map(w => `“${w.activity}”`))
  const stays = n === 1 ? 'stays theirs, where it is' : 'stay theirs, where they are'
  const then = to
    ? 'from now on they work with the new group'
    : 'they take no part in it until they are in a group again'
  return `${moved} ${capital(inWords(n))} ${plural(n, 'contribution')} in ${where} ${stays}; ${then}.`
}

/** A rule that groups do not keep, in a sentence. */
export const unkeptWords = ({ kind, ids }: UnkeptRule, nameOf: (id: string) => string): string =>
  kind === 'together'
    ? `${listed(ids.map(nameOf))} are to be kept together, and are in different groups.`
    : `${listed(ids.map(nameOf))} are to be kept apart, and are in one group.`
