/**
 * Krippendorff's alpha for interval data: 1 − observed over expected disagreement, both as mean squared differences.
 * Values of a unit are compared with each other only; a unit with fewer than two has nothing to compare and is left out.
 * Source: Krippendorff, *Content Analysis*, ch. 11; and "Computing Krippendorff's Alpha-Reliability" (2011), where its
 * twelve units by four observers give 0.849.
 *
 * @param units shape [n][values of unit], any unit of measure
 * @returns ≤ 1, unitless; null where nothing can be compared, or every value is the same, so that there is nothing to agree about
 */
export function krippendorffAlpha(units: ReadonlyArray<readonly number[]>): number | null {
  const pairable = units.filter(u => u.length > 1)
  const n = pairable.reduce((sum, u) => sum + u.length, 0)
  if (n === 0) return null
  // differences from the first value, so that squares of large figures do not swamp small ones
  const origin = pairable[0]![0]!
  const moments = (values: readonly number[]) =>
    values.reduce<readonly [number, number]>(([s, q], v) => [s + v - origin, q + (v - origin) ** 2], [0, 0])
  let observed = 0
  let sum = 0
  let squares = 0
  for (const unit of pairable) {
    const [s, q] = moments(unit)
    observed += (2 * (unit.length * q - s * s)) / (unit.length - 1)
    sum += s
    squares += q
  }
  const expected = (2 * (n * squares - sum * sum)) / (n - 1)
  return expected <= 1e-9 ? null : 1 - observed / expected
}

/** What an alpha means for one who marks by it. Bounds after Krippendorff: 0.8 to rely on, 0.667 to conclude with care. */
export type AgreementWord = 'close' | 'broad' | 'loose' | 'none'
export function agreementWord(alpha: number): AgreementWord {
  if (alpha >= 0.8) return 'close'
  if (alpha >= 0.5) return 'broad'
  return alpha > 0.1 ? 'loose' : 'none'
}
