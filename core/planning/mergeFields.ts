export interface MergedFields<T> {
  readonly merged: T // mine where only I changed, theirs where only they did; mine where both did
  readonly taken: ReadonlyArray<keyof T> // fields whose text comes from them
  readonly clashes: ReadonlyArray<keyof T> // fields both changed, each in another way
}

/**
 * Joins two people's changes to one thing, field by field: nothing either has done is lost, and where both changed the
 * same field otherwise it is named, so that a person decides. Own rule: three-way merge with fields as the unit.
 */
export function mergeFields<T extends object>(base: T, mine: T, theirs: T): MergedFields<T> {
  const merged = { ...mine }
  const taken: Array<keyof T> = []
  const clashes: Array<keyof T> = []
  for (const field of Object.keys({ ...base, ...mine, ...theirs }) as Array<keyof T>) {
    const mineChanged = !same(base[field], mine[field])
    const theirsChanged = !same(base[field], theirs[field])
    if (!theirsChanged) continue
    if (!mineChanged) {
      merged[field] = theirs[field]
      taken.push(field)
    } else if (!same(mine[field], theirs[field])) clashes.push(field)
  }
  return { merged, taken, clashes }
}

const same = (a: unknown, b: unknown): boolean => ordered(a) === ordered(b)
const ordered = (value: unknown): string =>
  JSON.stringify(value, (_, v: unknown) =>
    typeof v === 'object' && v !== null && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  ) ?? 'undefined'
