export interface MarkScale {
  readonly max: number // hundredths of a point: what the activity is worth
  readonly step: number // hundredths: 100 marks whole points, 50 half ones
}

/** Half up to a multiple of the step, never above the maximum. The tiny term undoes binary fractions: 0.29 × 100 must round like 29. */
export function roundHalfUp(points: number, { step, max }: MarkScale): number {
  return Math.min(max, Math.floor(points / step + 0.5 + 1e-9) * step)
}
