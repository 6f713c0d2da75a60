import { vi } from 'vitest'
import type { ProblemDetails } from '#shared/http/problem'
import type { Kept, LocalDraft, SaveFailure } from './autosave'

/** Lets everything happen that waits for nothing but its turn. */
export const settled = () => vi.advanceTimersByTimeAsync(0)

export class Refusal extends Error {
  constructor(readonly failure: SaveFailure<string>) {
    super(failure.kind)
  }
}
export const problem = (status: number, detail = 'no'): ProblemDetails => ({
  type: 'about:blank',
  title: 'no',
  status,
  code: 'no',
  detail,
})
export const UNREACHED = new Refusal({ kind: 'unreached', problem: problem(0) })
export const SIGNED_OUT = new Refusal({ kind: 'signedOut', problem: problem(401) })
export const REFUSED = new Refusal({ kind: 'refused', problem: problem(422, 'Too long.') })

/** Stores one text by version, as the routes do; answers come when the test lets them. */
export class Server {
  text = ''
  version = 0
  failing: Refusal | null = null
  readonly received: string[] = []
  readonly #waiting: Array<() => void> = []
  isSlow = false

  send = async (value: string, base: number | null) => {
    if (this.isSlow) await new Promise<void>(resolve => this.#waiting.push(resolve))
    this.received.push(value)
    if (this.failing) throw this.failing
    if ((base ?? 0) !== this.version)
      throw new Refusal({ kind: 'conflict', theirs: { value: this.text, version: this.version } })
    this.text = value
    this.version++
    return { version: this.version }
  }
  /** Lets the oldest request that waits be answered. */
  async answer() {
    this.#waiting.shift()!()
    await settled()
  }
}

/** What one tab sees of the browser's storage, which is that of all tabs. */
export class BrowserDrafts implements LocalDraft<string> {
  #own: Kept<string> | null = null
  constructor(readonly storage: { kept: Kept<string> | null } = { kept: null }) {}
  get kept() {
    return this.storage.kept
  }
  put = (kept: Kept<string>) => {
    this.#own = this.storage.kept = kept
    return true
  }
  update = (kept: Kept<string>) => {
    if (this.#own !== null && this.storage.kept === this.#own) this.put(kept)
  }
  take = async () => {
    this.#own = this.storage.kept
    return this.#own
  }
  drop = () => {
    if (this.storage.kept === this.#own) this.storage.kept = null
  }
  stored = this.drop
}
