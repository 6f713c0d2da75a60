/** Something that is reviewed, with whoever made it; of one person or of a group. */
export interface Work { readonly id: string, readonly ownerIds: readonly string[] }
export interface Pair { readonly reviewerId: string, readonly workId: string }

export interface Apart {
  readonly groupOf?: ReadonlyMap<string, string> // person to group: groupmates do not review each other
  readonly barred?: ReadonlyArray<readonly [string, string]> // two people neither of whom reviews the other
}

/** Reviewers and works by their places, and who must not review what. */
export interface Table {
  readonly reviewers: readonly string[]
  readonly works: readonly Work[]
  readonly permits: (reviewer: number, work: number) => boolean
  /** How many works a reviewer may review. */
  readonly permitted: (reviewer: number) => number
}

/** Nobody reviews what they made, what a groupmate made, or what somebody they are kept apart from made. */
export function tableOf(reviewers: readonly string[], works: readonly Work[], { groupOf, barred = [] }: Apart): Table {
  const worksOf = new Map<string, number[]>()
  works.forEach((work, w) => work.ownerIds.forEach(owner => worksOf.set(owner, [...worksOf.get(owner) ?? [], w])))
  const mates = new Map<string, string[]>()
  for (const [person, group] of groupOf ?? []) mates.set(group, [...mates.get(group) ?? [], person])
  const enemies = new Map<string, string[]>()
  for (const [a, b] of barred) {
    enemies.set(a, [...enemies.get(a) ?? [], b])
    enemies.set(b, [...enemies.get(b) ?? [], a])
  }
  const shut = reviewers.map((id) => {
    const group = groupOf?.get(id)
    const others = [id, ...group ? mates.get(group)! : [], ...enemies.get(id) ?? []]
    return new Set(others.flatMap(other => worksOf.get(other) ?? []))
  })
  return { reviewers, works, permits: (r, w) => !shut[r]!.has(w), permitted: r => works.length - shut[r]!.size }
}

/** Pairs that can grow by moving others out of the way, as few as possible. Reviewers and works are places in the table. */
export class Pairing {
  readonly given: Array<Set<number>>
  readonly received: number[]
  private readonly reviewersOf: Array<Set<number>>
  private readonly originals = new Set<number>()
  private readonly locked = new Set<number>()

  constructor(private readonly table: Table, private readonly most: readonly number[], private readonly need: readonly number[]) {
    this.given = table.reviewers.map(() => new Set<number>())
    this.reviewersOf = table.works.map(() => new Set<number>())
    this.received = table.works.map(() => 0)
  }

  private key = (r: number, w: number) => r * this.table.works.length + w
  has = (r: number, w: number): boolean => this.given[r]!.has(w)
  isOpen = (r: number, w: number): boolean => this.table.permits(r, w) && !this.has(r, w)

  add(r: number, w: number): void {
    this.given[r]!.add(w)
    this.reviewersOf[w]!.add(r)
    this.received[w]!++
  }

  remove(r: number, w: number): void {
    this.given[r]!.delete(w)
    this.reviewersOf[w]!.delete(r)
    this.received[w]!--
  }

  /** A pair that stood before: moving it counts as a change; a locked one is never moved. */
  keep(r: number, w: number, isLocked: boolean): void {
    this.add(r, w)
    ;(isLocked ? this.locked : this.originals).add(this.key(r, w))
  }

  /**
   * Gives every work what it needs as far as that is possible, moving as few of the kept pairs as can be.
   * Source: minimum-cost flow by successive shortest paths (Ahuja, Magnanti, Orlin, *Network Flows*, ch. 9); a path that
   * moves a kept pair costs one, one that brings it back earns one.
   * @returns works that still lack reviews, with how many
   */
  fill(order: readonly number[]): Array<{ readonly work: number, readonly missing: number }> {
    // what fits without moving anything costs nothing
    for (const w of order) {
      for (let r = 0; this.received[w]! < this.need[w]! && r < this.table.reviewers.length; r++) {
        if (this.given[r]!.size < this.most[r]! && this.isOpen(r, w)) this.add(r, w)
      }
    }
    const given = new Set<number>() // works no path leads to any more
    for (const w of order) {
      while (this.received[w]! < this.need[w]! && !given.has(w)) if (!this.augment(w)) given.add(w)
    }
    return order.filter(w => this.received[w]! < this.need[w]!).map(w => ({ work: w, missing: this.need[w]! - this.received[w]! }))
  }

  /** One more review for a work along the cheapest path from somebody with room, found backwards from the work. */
  private augment(target: number): boolean {
    const { reviewers, works } = this.table
    const cost = new Array<number>(reviewers.length).fill(Infinity) // of making room at a reviewer
    const next = new Array<number>(reviewers.length).fill(-1) // the work a reviewer would take on
    const workCost = new Array<number>(works.length).fill(Infinity)
    const leaver = new Array<number>(works.length).fill(-1) // who would leave the work
    workCost[target] = 0
    const queue = [target]
    const queued = new Set(queue)
    while (queue.length > 0) {
      const w = queue.shift()!
      queued.delete(w)
      for (let r = 0; r < reviewers.length; r++) {
        if (!this.isOpen(r, w)) continue
        const taking = workCost[w]! + (this.originals.has(this.key(r, w)) ? -1 : 0)
        if (taking >= cost[r]!) continue
        cost[r] = taking
        next[r] = w
        for (const other of this.given[r]!) {
          if (this.locked.has(this.key(r, other)) || other === target) continue
          const leaving = taking + (this.originals.has(this.key(r, other)) ? 1 : 0)
          if (leaving >= workCost[other]!) continue
          workCost[other] = leaving
          leaver[other] = r
          if (!queued.has(other)) { queued.add(other); queue.push(other) }
        }
      }
    }
    let best = -1
    for (let r = 0; r < reviewers.length; r++) if (this.given[r]!.size < this.most[r]! && cost[r]! < (best < 0 ? Infinity : cost[best]!)) best = r
    if (best < 0) return false
    for (let r = best; ;) {
      const w = next[r]!
      this.add(r, w)
      if (w === target) return true
      const out = leaver[w]!
      this.remove(out, w)
      r = out
    }
  }

  pairs(): Pair[] {
    return this.given.flatMap((set, r) => [...set].map(w => ({ reviewerId: this.table.reviewers[r]!, workId: this.table.works[w]!.id })))
  }
}
