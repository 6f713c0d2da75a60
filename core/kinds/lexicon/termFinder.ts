/** A term with the forms by which it is known in a text. */
export interface KnownTerm {
  readonly id: string
  readonly forms: readonly string[]
  readonly whole: boolean
}
/** Where a term stands: characters from `start` up to `end`. */
export interface TermHit {
  readonly id: string
  readonly start: number
  readonly end: number
}

interface Form {
  readonly id: string
  readonly length: number
  readonly whole: boolean
}

/**
 * Finds many terms in one pass over a text (Aho and Corasick 1975). Upper and lower case, kinds of apostrophe and of white
 * space are the same. Where several begin at one place the longest is it, and nothing is found inside a term: "harbour
 * board" is not also "harbour". A term set to be whole is not found inside a longer word.
 */
export class TermFinder {
  private readonly next: Array<Map<number, number>> = [new Map()] // by state: where a character leads
  private readonly ends: Array<Form[]> = [[]] // forms that end in a state itself
  private readonly back: number[] = [0] // the longest proper ending that is a beginning, too
  private readonly shorter: number[] = [-1] // the nearest state along `back` in which a form ends

  constructor(terms: readonly KnownTerm[]) {
    for (const { id, forms, whole } of terms) {
      for (const form of forms) {
        const text = fold(form.trim().replace(/\s+/g, ' '))
        if (text !== '') this.add(text, { id, length: text.length, whole })
      }
    }
    this.linkBack()
  }

  /** Hits from left to right, none inside another. */
  find(text: string): TermHit[] {
    const folded = fold(text)
    const found: TermHit[] = []
    let state = 0
    for (let i = 0; i < folded.length; i++) {
      const code = folded.charCodeAt(i)
      while (state > 0 && !this.next[state]!.has(code)) state = this.back[state]!
      state = this.next[state]!.get(code) ?? 0
      for (let s = this.ends[state]!.length > 0 ? state : this.shorter[state]!; s > 0; s = this.shorter[s]!) {
        for (const form of this.ends[s]!) {
          const start = i + 1 - form.length
          if (form.whole && !standsAlone(folded, start, i + 1)) continue
          found.push({ id: form.id, start, end: i + 1 })
        }
      }
    }
    const hits: TermHit[] = []
    // of those that begin at one place the longest; of equals the first that was known
    found.sort((a, b) => a.start - b.start || b.end - a.end)
    let end = 0
    for (const hit of found) {
      if (hit.start < end) continue
      hits.push(hit)
      end = hit.end
    }
    return hits
  }

  private add(text: string, form: Form) {
    let state = 0
    for (let i = 0; i < text.length; i++) {
      const code = text.charCodeAt(i)
      const known = this.next[state]!.get(code)
      if (known !== undefined) {
        state = known
        continue
      }
      this.next.push(new Map())
      this.ends.push([])
      this.back.push(0)
      this.shorter.push(-1)
      this.next[state]!.set(code, this.next.length - 1)
      state = this.next.length - 1
    }
    this.ends[state]!.push(form)
  }

  private linkBack() {
    const queue = [...this.next[0]!.values()]
    for (let q = 0; q < queue.length; q++) {
      const state = queue[q]!
      this.shorter[state] =
        this.ends[this.back[state]!]!.length > 0 ? this.back[state]! : this.shorter[this.back[state]!]!
      for (const [code, to] of this.next[state]!) {
        let b = this.back[state]!
        while (b > 0 && !this.next[b]!.has(code)) b = this.back[b]!
        this.back[to] = this.next[b]!.get(code) ?? 0
        queue.push(to)
      }
    }
  }
}

/** The same text with what counts as equal made equal; as long as before, so that places stay. */
function fold(text: string): string {
  const lower = text.toLowerCase()
  const same =
    lower.length === text.length
      ? lower
      : Array.from({ length: text.length }, (_, i) => {
          const c = text[i]!.toLowerCase()
          return c.length === 1 ? c : text[i]!
        }).join('')
  return same
    .replace(/[’‘ʼ]/g, "'")
    .replace(/[\s\u00a0]/g, ' ')
    .replace(/[‐‑]/g, '-')
}

const WORD = /[\p{L}\p{N}\p{M}_]/u

/** Whether no letter or digit joins on at either end; an end that is none itself joins nothing. */
function standsAlone(text: string, start: number, end: number): boolean {
  const joins = (outer: string | undefined, inner: string) =>
    outer !== undefined && WORD.test(outer) && WORD.test(inner)
  const at = (i: number) =>
    i < 0 || i >= text.length ? undefined : String.fromCodePoint(text.codePointAt(i)!)
  const beforeStart = start > 1 && /[\udc00-\udfff]/.test(text[start - 1]!) ? at(start - 2) : at(start - 1)
  return !joins(beforeStart, at(start)!) && !joins(at(end), at(end - 1)!)
}

/** A term as it is compared with another of the same lexicon. */
export const sameTerm = (term: string): string => fold(term.trim().replace(/\s+/g, ' ').normalize('NFC'))
