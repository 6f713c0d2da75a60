/** A letter or word of a grading scale, and the percent from which it is given. */
export interface GradeBand {
  readonly letter: string
  readonly fromPercent: number
}

/** Bands as they were typed, or why they cannot be taken. */
export type ReadBands =
  | { readonly kind: 'read'; readonly bands: readonly GradeBand[] }
  | { readonly kind: 'refused'; readonly because: BandFault }

export type BandFault =
  | { readonly code: 'notABand'; readonly part: string } // no percent at its end
  | { readonly code: 'overHundred'; readonly part: string }
  | { readonly code: 'twice'; readonly part: string } // a letter that is there already
  | { readonly code: 'notDescending'; readonly part: string } // not below the one before it
  | { readonly code: 'tooFew' }
  | { readonly code: 'noZero' } // the last does not begin at 0 %

/**
 * Bands of a grading scale, as people write them: "A 90, B 80, C 70, F 0", the highest first, with or without a sign of
 * percent; a comma between two digits belongs to the number.
 */
export function readBands(text: string): ReadBands {
  const bands: GradeBand[] = []
  const parts = text.split(/,(?!\d)|;/).filter(part => part.trim() !== '')
  for (const part of parts) {
    const found = /^\s*(.+?)\s+(\d+(?:[.,]\d+)?)\s*%?\s*$/.exec(part)
    const refused = (code: Exclude<BandFault['code'], 'tooFew' | 'noZero'>): ReadBands => ({
      kind: 'refused',
      because: { code, part: part.trim() },
    })
    if (!found) return refused('notABand')
    const band = { letter: found[1]!, fromPercent: Number(found[2]!.replace(',', '.')) }
    if (band.fromPercent > 100) return refused('overHundred')
    if (bands.some(b => b.letter === band.letter)) return refused('twice')
    const before = bands.at(-1)
    if (before && band.fromPercent >= before.fromPercent) return refused('notDescending')
    bands.push(band)
  }
  if (bands.length < 2) return { kind: 'refused', because: { code: 'tooFew' } }
  if (bands.at(-1)!.fromPercent !== 0) return { kind: 'refused', because: { code: 'noZero' } }
  return { kind: 'read', bands }
}
