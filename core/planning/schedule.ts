export const PHASES = ['write', 'respond', 'revise', 'review', 'mark', 'return'] as const
export type PhaseName = (typeof PHASES)[number]

/** Phases in which students work; the others belong to the marker. */
const WORKING: ReadonlySet<PhaseName> = new Set(['write', 'respond', 'revise', 'review'])
export const isWorkingPhase = (phase: PhaseName): boolean => WORKING.has(phase)

export interface Phase {
  readonly name: PhaseName
  readonly startsAt: Date
  readonly endsAt: Date // the due time; work at this very instant is on time
}

export interface Schedule {
  readonly opensAt: Date
  readonly phases: readonly Phase[] // in order, at least one working phase
}

export interface Extension {
  readonly dueAt: Date // takes the place of the end of the last working phase for one person
}

/** End of the last working phase: when the activity closes for everyone without an extension. */
export function closesAt(schedule: Schedule): Date {
  const working = schedule.phases.filter(p => isWorkingPhase(p.name))
  if (working.length === 0) throw new RangeError('closesAt needs at least one working phase')
  return new Date(Math.max(...working.map(p => p.endsAt.getTime())))
}

/**
 * A person's own due time for work due at `dueAt` by the activity: their extension if it is later, else `dueAt`.
 * An extension never shortens anyone's time.
 */
export function ownDueAt(dueAt: Date, extension: Extension | null): Date {
  return extension && extension.dueAt > dueAt ? extension.dueAt : dueAt
}

export type ScheduleState =
  | { readonly kind: 'before'; readonly opensAt: Date }
  | { readonly kind: 'working'; readonly phase: Phase }
  | { readonly kind: 'closed'; readonly closedAt: Date }

/**
 * Where a schedule stands for one person. Precedence: not open yet, then closed by the person's own due time,
 * then the working phase of now. In the gap before a phase begins the coming phase is named; in an extension, the last.
 */
export function scheduleState(
  schedule: Schedule,
  now: Date,
  extension: Extension | null = null,
): ScheduleState {
  if (now < schedule.opensAt) return { kind: 'before', opensAt: schedule.opensAt }
  const closedAt = ownDueAt(closesAt(schedule), extension)
  if (now > closedAt) return { kind: 'closed', closedAt }
  const working = schedule.phases.filter(p => isWorkingPhase(p.name))
  return { kind: 'working', phase: working.find(p => now <= p.endsAt) ?? working[working.length - 1]! }
}

export type ScheduleFault =
  | { readonly code: 'noWorkingPhase' }
  | { readonly code: 'endsBeforeItStarts'; readonly phase: PhaseName }
  | { readonly code: 'beforeOpening'; readonly phase: PhaseName }
  | { readonly code: 'reviewBeforeHandIn' }

/** What contradicts itself in a schedule; empty when it is sound. */
export function scheduleFaults(schedule: Schedule): ScheduleFault[] {
  const faults: ScheduleFault[] = []
  if (!schedule.phases.some(p => isWorkingPhase(p.name))) faults.push({ code: 'noWorkingPhase' })
  for (const phase of schedule.phases) {
    if (phase.endsAt <= phase.startsAt) faults.push({ code: 'endsBeforeItStarts', phase: phase.name })
    if (phase.startsAt < schedule.opensAt) faults.push({ code: 'beforeOpening', phase: phase.name })
  }
  const write = schedule.phases.find(p => p.name === 'write')
  const review = schedule.phases.find(p => p.name === 'review')
  if (write && review && review.startsAt < write.endsAt) faults.push({ code: 'reviewBeforeHandIn' })
  return faults
}
