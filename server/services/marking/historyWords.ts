import type { AuditAct } from '#server/database/auditActs'

/** What an act on a mark keeps beside it; points are hundredths. */
export interface AuditDetail {
  readonly steps?: ReadonlyArray<{
    readonly criterionId: string
    readonly from?: string | null
    readonly to?: string | null
    readonly points?: number
    readonly pointsFrom?: number | null
    readonly pointsTo?: number | null
  }>
  readonly points?: number | null
  readonly from?: unknown
  readonly to?: unknown
  readonly reason?: string
  readonly group?: string
  readonly at?: string | null
  readonly version?: number
}

const pts = (hundredths: number | null | undefined) =>
  hundredths === null || hundredths === undefined ? 'nothing' : String(hundredths / 100)
const because = (d: AuditDetail) => (d.reason ? `: ${d.reason}` : '')
const marked = (value: unknown) => {
  const v = value as { points?: number | null; done?: boolean | null } | null
  if (!v || (v.points == null && v.done == null)) return 'no mark'
  if (v.points != null) return `${pts(v.points)}`
  if (v.done) return 'done'
  return 'not done'
}

type Wording = (detail: AuditDetail, names: ReadonlyMap<string, string>) => string

const WORDS: Readonly<Partial<Record<AuditAct, Wording>>> = {
  markStepsChanged: (d, names) =>
    (d.steps ?? [])
      .map(s => {
        const side = (level: string | null | undefined, points: number | null | undefined) =>
          level ? `${names.get(level) ?? 'a step'}${points != null ? ` (${pts(points)})` : ''}` : 'no step'
        return `${names.get(s.criterionId) ?? 'A criterion'}: ${side(s.from, s.pointsFrom)} → ${side(s.to, s.pointsTo)}`
      })
      .join('; '),
  markPointsSet: d =>
    d.to === null ? 'took the set points off' : `set the points to ${pts(d.to as number)}${because(d)}`,
  latenessWaived: () => 'counted it as on time',
  latenessCounted: () => 'latenessCounted',
  groupStepsSet: d => `set the steps of the group ${d.group ?? ''}`.trim(),
  markHeld: d => `held it at ${pts(d.points)}`,
  markReopened: () => 'took it back to the desk',
  markReturned: d => `returned it at ${pts(d.points)}`,
  returnUndone: () => 'took the returned mark back',
  returnScheduled: () => 'set a time at which it returns',
  returnUnscheduled: () => 'took the time of returning off',
  contributionMarked: d => `marked a contribution: ${marked(d.from)} → ${marked(d.to)}`,
  answerMarked: d => {
    const doneWords = () => {
      if (d.to === null) return 'no mark'
      if (d.to) return 'done'
      return 'not done'
    }
    return `marked an answer: ${doneWords()}`
  },
  markedSecondTime: () => 'marked it a second time',
  secondMarkingAgreed: () => 'agreed on the two markings',
  markMovedToVersion: d => `moved it to version ${d.version} of the rubric`,
  studentExcused: d => `excused from the activity${because(d)}`,
  excuseEnded: () => 'excuseEnded',
}

/** The acts that belong into the history of a mark. */
export const TOLD_ACTS = Object.keys(WORDS) as AuditAct[] // the keys of that object

/** An act in words, as it stands in the history of a mark. `names`: of criteria and steps, by id. */
export const historyWords = (
  act: AuditAct,
  detail: AuditDetail,
  names: ReadonlyMap<string, string>,
): string => WORDS[act]?.(detail, names) ?? act
