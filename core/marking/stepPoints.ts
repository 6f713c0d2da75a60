export interface StepLevel {
  readonly id: string
  readonly points: number
  readonly pointsFrom: number | null
}

/** Lowest and highest points of a level, hundredths: the same where it stands for one number. */
export const rangeOf = (level: StepLevel): readonly [from: number, to: number] => [
  level.pointsFrom ?? level.points,
  level.points,
]

/** Whether points can be given at a level. */
export const fitsLevel = (level: StepLevel, points: number): boolean =>
  points >= rangeOf(level)[0] && points <= rangeOf(level)[1]

/**
 * The level that a typed number belongs to: the one whose range holds it, else, between two levels, none.
 * Where ranges touch, the higher level has it.
 */
export const levelFor = (levels: readonly StepLevel[], points: number): StepLevel | null =>
  [...levels].sort((a, b) => b.points - a.points).find(level => fitsLevel(level, points)) ?? null
