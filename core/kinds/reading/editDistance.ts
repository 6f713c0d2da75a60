/**
 * Edit distance of two short texts (Levenshtein 1966): the fewest signs put in, taken out or exchanged.
 * Time and memory grow with the product of the lengths; for contexts of some dozens of signs.
 */
export function editDistance(a: string, b: string): number {
  const letters = codesOf(b)
  const row = Int32Array.from({ length: b.length + 1 }, (_, j) => j)
  for (let i = 1; i <= a.length; i++) {
    const letter = a.charCodeAt(i - 1)
    let diagonal = row[0]!
    let left = (row[0] = i)
    for (let j = 1; j <= letters.length; j++) {
      const above = row[j]!
      const change = letters[j - 1] === letter ? diagonal : diagonal + 1
      left = row[j] = Math.min(change, above + 1, left + 1)
      diagonal = above
    }
  }
  return row[b.length]!
}

const codesOf = (text: string): Uint16Array =>
  Uint16Array.from({ length: text.length }, (_, i) => text.charCodeAt(i))

/** How much two texts have in common: 1 for the same, 0 for nothing. Two empty ones are the same. */
export const likeness = (a: string, b: string): number =>
  a === b ? 1 : 1 - editDistance(a, b) / Math.max(a.length, b.length)

/** Where a pattern lies in a text with the fewest differences, and where a part of the pattern lies there. */
export interface Alignment {
  readonly distance: number
  readonly start: number
  readonly end: number
  readonly partStart: number
  readonly partEnd: number
  readonly partDistance: number
}

/**
 * The best place of a pattern anywhere in a text (approximate matching; Sellers 1980), with the path traced back so that
 * the place of a part of the pattern is known, too.
 *
 * @param part the part of the pattern, from and up to
 */
export function alignWithin(text: string, pattern: string, part: readonly [number, number]): Alignment {
  const [n, m] = [text.length, pattern.length]
  const width = n + 1
  const cost = new Uint16Array((m + 1) * width)
  const letters = codesOf(text)
  for (let i = 1; i <= m; i++) {
    const letter = pattern.charCodeAt(i - 1)
    const above = (i - 1) * width
    let left = (cost[i * width] = i)
    let diagonal = cost[above]!
    for (let j = 1; j <= n; j++) {
      const up = cost[above + j]!
      const change = letters[j - 1] === letter ? diagonal : diagonal + 1
      left = cost[i * width + j] = Math.min(change, up + 1, left + 1)
      diagonal = up
    }
  }
  let end = 0
  for (let j = 1; j <= n; j++) if (cost[m * width + j]! < cost[m * width + end]!) end = j
  let [i, j] = [m, end]
  let [partStart, partEnd] = [-1, -1]
  let [atPartEnd, atPartStart] = [0, 0]
  while (i > 0) {
    if (i === part[1] && partEnd < 0) {
      partEnd = j
      atPartEnd = cost[i * width + j]!
    }
    if (i === part[0] && partStart < 0) {
      partStart = j
      atPartStart = cost[i * width + j]!
    }
    const here = cost[i * width + j]!
    if (j > 0 && here === cost[(i - 1) * width + j - 1]! + (pattern[i - 1] === text[j - 1] ? 0 : 1)) {
      i--
      j--
    } else if (here === cost[(i - 1) * width + j]! + 1) i--
    else j--
  }
  if (part[0] === 0) {
    partStart = j
    atPartStart = 0
  }
  if (part[1] === 0) {
    partEnd = j
    atPartEnd = 0
  }
  return {
    distance: cost[m * width + end]!,
    start: j,
    end,
    partStart,
    partEnd,
    partDistance: atPartEnd - atPartStart,
  }
}
