import { clockAt } from './localTime'
import { dayAfter, localDay, localInstant } from './week'
import { scheduleFaults, type Phase, type PhaseName, type Schedule, type ScheduleFault } from './schedule'

/** What is taken hold of: the whole bar, its opening, or the end of one phase. */
export type Grip =
  | { readonly kind: 'whole' }
  | { readonly kind: 'opens' }
  | { readonly kind: 'end'; readonly phase: PhaseName }

export type Moved =
  | { readonly kind: 'moved'; readonly schedule: Schedule }
  | { readonly kind: 'refused'; readonly fault: ScheduleFault }

/**
 * Moves a schedule, or a part of it, by whole local days: times of day stay as they are on both sides of a change of the
 * clocks, so what was due at 23:59 stays due at 23:59.
 *
 * What depends on what is moved follows: with the end of a phase go the phases that begin at or after it, with their
 * lengths; phases that run beside it stay. Moving the opening moves the start of what begins with it, nothing else.
 * A result that contradicts itself is refused with the first fault found; the schedule stays as it was.
 *
 * @param days whole days, negative for earlier
 */
export function moveSchedule(schedule: Schedule, grip: Grip, days: number, timeZone: string): Moved {
  const shift = (at: Date): Date => shiftDays(at, days, timeZone)
  const moved = ((): Schedule => {
    switch (grip.kind) {
      case 'whole':
        return {
          opensAt: shift(schedule.opensAt),
          phases: schedule.phases.map(p => ({ ...p, startsAt: shift(p.startsAt), endsAt: shift(p.endsAt) })),
        }
      case 'opens':
        return {
          opensAt: shift(schedule.opensAt),
          phases: schedule.phases.map(p =>
            p.startsAt.getTime() === schedule.opensAt.getTime() ? { ...p, startsAt: shift(p.startsAt) } : p,
          ),
        }
      case 'end': {
        const held = schedule.phases.find(p => p.name === grip.phase)
        if (!held) throw new RangeError(`moveSchedule: there is no phase ${grip.phase}`)
        return {
          ...schedule,
          phases: schedule.phases.map(p => {
            if (follows(p, held, schedule.phases))
              return { ...p, startsAt: shift(p.startsAt), endsAt: shift(p.endsAt) }
            if (p === held) return { ...p, endsAt: shift(p.endsAt) }
            return p
          }),
        }
      }
    }
  })()
  const [fault] = scheduleFaults(moved)
  return fault ? { kind: 'refused', fault } : { kind: 'moved', schedule: moved }
}

const follows = (p: Phase, held: Phase, all: readonly Phase[]): boolean =>
  p !== held && all.indexOf(p) > all.indexOf(held) && p.startsAt.getTime() >= held.endsAt.getTime()

/**
 * Sets the end of a phase to a moment. What follows it moves by as many whole days; a phase that began at the old end
 * begins at the new one.
 */
export function setPhaseEnd(schedule: Schedule, phase: PhaseName, at: Date, timeZone: string): Moved {
  const held = schedule.phases.find(p => p.name === phase)
  if (!held) throw new RangeError(`setPhaseEnd: there is no phase ${phase}`)
  const days = Math.round((noon(localDay(at, timeZone)) - noon(localDay(held.endsAt, timeZone))) / DAY)
  const shift = (time: Date) => shiftDays(time, days, timeZone)
  const phases = schedule.phases.map(p => {
    if (p === held) return { ...p, endsAt: at }
    if (!follows(p, held, schedule.phases)) return p
    return {
      ...p,
      startsAt: p.startsAt.getTime() === held.endsAt.getTime() ? at : shift(p.startsAt),
      endsAt: shift(p.endsAt),
    }
  })
  const [fault] = scheduleFaults({ ...schedule, phases })
  return fault ? { kind: 'refused', fault } : { kind: 'moved', schedule: { ...schedule, phases } }
}

const DAY = 86_400_000
const noon = (day: string): number => Date.parse(`${day}T12:00:00Z`)

/** The same local time of day, so many days later. */
export function shiftDays(at: Date, days: number, timeZone: string): Date {
  const clock = clockAt(at, timeZone)
  return localInstant(dayAfter(localDay(at, timeZone), days), clock, timeZone)
}

/**
 * An end snapped to the seminar's usual due time: the usual clock time on the day it falls on.
 * @param usual local time HH:MM
 */
export const snapToUsual = (at: Date, usual: string, timeZone: string): Date =>
  localInstant(localDay(at, timeZone), usual, timeZone)
