/** Something that is reviewed, with whoever made it; of one person or of a group. */
export interface Work {
  readonly id: string
  readonly ownerIds: readonly string[]
}
export interface Pair {
  readonly reviewerId: string
  readonly workId: string
}

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
export function tableOf(
  reviewers: readonly string[],
  works: readonly Work[],
  { groupOf, barred = [] }: Apart,
): Table {
  const worksOf = new Map<string, number | number[]>() // most made one
  for (let w = 0; w < works.length; w++) for (const owner of works[w]!.ownerIds) add(worksOf, owner, w)
  const mates = new Map<string, string | string[]>()
  for (const [person, group] of groupOf ?? []) add(mates, group, person)
  const enemies = new Map<string, string | string[]>()
  for (const [a, b] of barred) {
    add(enemies, a, b)
    add(enemies, b, a)
  }
  // a few workIndexes each, all in one row: looked through faster than kept in sets
  const workIndexes: number[] = []
  const from = new Int32Array(reviewers.length + 1)
  for (let r = 0; r < reviewers.length; r++) {
    const shutOut = (person: string) =>
      each(worksOf.get(person), w => {
        if (workIndexes.indexOf(w, from[r]!) < 0) workIndexes.push(w)
      })
    shutOut(reviewers[r]!)
    if (groupOf) each(mates.get(groupOf.get(reviewers[r]!) ?? ''), shutOut)
    if (enemies.size > 0) each(enemies.get(reviewers[r]!), shutOut)
    from[r + 1] = workIndexes.length
  }
  const permits = (r: number, w: number) => {
    for (let i = from[r]!; i < from[r + 1]!; i++) if (workIndexes[i] === w) return false
    return true
  }
  return { reviewers, works, permits, permitted: r => works.length - (from[r + 1]! - from[r]!) }
}

/** One value, or, from the second on, a list of them. */
function add<T>(map: Map<string, T | T[]>, key: string, value: T): void {
  const there = map.get(key)
  if (there === undefined) map.set(key, value)
  else if (Array.isArray(there)) there.push(value)
  else map.set(key, [there, value])
}
function each<T>(values: T | T[] | undefined, act: (value: T) => void): void {
  if (Array.isArray(values)) for (const value of values) act(value)
  else if (values !== undefined) act(values)
}

/** Pairs that can grow by moving others out of the way, as few as possible. Reviewers and works are workIndexes in the table. */
export class Pairing {
  private slots: Int32Array // works of each reviewer, side by side
  private room: number // slots of each
  private readonly loads: Int32Array
  readonly received: Int32Array
  private readonly originals = new Set<number>()
  private readonly locked = new Set<number>()

  constructor(
    private readonly table: Table,
    private readonly most: readonly number[],
    private readonly need: readonly number[],
  ) {
    this.room = most.reduce((a, b) => Math.max(a, b), 1)
    this.slots = new Int32Array(table.reviewers.length * this.room)
    this.loads = new Int32Array(table.reviewers.length)
    this.received = new Int32Array(table.works.length)
  }

  private key = (r: number, w: number) => r * this.table.works.length + w
  load = (r: number): number => this.loads[r]!
  /** Works a reviewer has, by their workIndexes. */
  given = (r: number): Int32Array => this.slots.subarray(r * this.room, r * this.room + this.loads[r]!)
  has = (r: number, w: number): boolean => {
    const from = r * this.room
    for (let i = from; i < from + this.loads[r]!; i++) if (this.slots[i] === w) return true
    return false
  }

  isOpen = (r: number, w: number): boolean => this.table.permits(r, w) && !this.has(r, w)

  add(r: number, w: number): void {
    if (this.loads[r] === this.room) this.widen()
    this.slots[r * this.room + this.loads[r]!++] = w
    this.received[w]!++
  }

  remove(r: number, w: number): void {
    const from = r * this.room
    for (let i = from; i < from + this.loads[r]!; i++)
      if (this.slots[i] === w) {
        this.slots[i] = this.slots[from + this.loads[r]! - 1]!
        break
      }
    this.loads[r]!--
    this.received[w]!--
  }

  private widen(): void {
    const wider = new Int32Array(this.slots.length * 2)
    for (let r = 0; r < this.loads.length; r++) wider.set(this.given(r), r * this.room * 2)
    this.slots = wider
    this.room *= 2
  }

  /** Works that have fewer reviews than they need. */
  lacking(): number[] {
    const all: number[] = []
    for (let w = 0; w < this.received.length; w++) if (this.received[w]! < this.need[w]!) all.push(w)
    return all
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
  fill(order: readonly number[]): Array<{ readonly work: number; readonly missing: number }> {
    // what fits without moving anything costs nothing
    for (const w of order) {
      for (let r = 0; this.received[w]! < this.need[w]! && r < this.table.reviewers.length; r++) {
        if (this.load(r) < this.most[r]! && this.isOpen(r, w)) this.add(r, w)
      }
    }
    const givenUp = new Set<number>() // works no path leads to any more
    for (const w of order) {
      while (this.received[w]! < this.need[w]! && !givenUp.has(w)) if (!this.augment(w)) givenUp.add(w)
    }
    return order
      .filter(w => this.received[w]! < this.need[w]!)
      .map(w => ({ work: w, missing: this.need[w]! - this.received[w]! }))
  }

  /**
   * One more review for a work along the cheapest path from somebody with room, or from a work with more reviews than it
   * needs, found backwards from the work.
   */
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
        for (const other of [...this.given(r)]) {
          if (this.locked.has(this.key(r, other)) || other === target) continue
          const leaving = taking + (this.originals.has(this.key(r, other)) ? 1 : 0)
          if (leaving >= workCost[other]!) continue
          workCost[other] = leaving
          leaver[other] = r
          if (!queued.has(other)) {
            queued.add(other)
            queue.push(other)
          }
        }
      }
    }
    let best = -1
    for (let r = 0; r < reviewers.length; r++)
      if (this.load(r) < this.most[r]! && cost[r]! < (best < 0 ? Infinity : cost[best]!)) best = r
    // or from a work that has more than it needs: nobody has to take it on from who leaves it
    let spare = -1
    for (let w = 0; w < works.length; w++)
      if (
        leaver[w]! >= 0 &&
        this.received[w]! > this.need[w]! &&
        workCost[w]! < (spare < 0 ? Infinity : workCost[spare]!)
      )
        spare = w
    if (spare >= 0 && (best < 0 || workCost[spare]! < cost[best]!)) {
      best = leaver[spare]!
      this.remove(best, spare)
    }
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
    const all: Pair[] = []
    for (let r = 0; r < this.loads.length; r++)
      for (const w of this.given(r))
        all.push({ reviewerId: this.table.reviewers[r]!, workId: this.table.works[w]!.id })
    return all
  }
}
