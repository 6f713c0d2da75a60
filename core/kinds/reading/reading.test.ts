import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededRandom, type Random } from '#core/chance/seededRandom'
import { CONTEXT, makeAnchor } from './anchor'
import { alignWithin, editDistance } from './editDistance'
import { findAnchors } from './findAnchors'
import { readableText } from './readableText'

const WORDS =
  'the mole toll harbour stone of and widow share pilot oath herring lasts barge quay tide silt guild paid built first second for a to in was roll chain nobody could say who had seen it before the water rose again over steps'.split(
    ' ',
  )
const sentence = (random: Random) =>
  `${Array.from({ length: 6 + Math.floor(random() * 14) }, () => WORDS[Math.floor(random() * WORDS.length)]).join(' ')}. `
const someText = (random: Random, sentences: number) =>
  Array.from({ length: sentences }, () => sentence(random))
    .join('')
    .trim()

/** A text as signs that know who they are, so that after any edit it is known where each went. */
interface Traced {
  readonly signs: readonly string[]
  readonly ids: readonly number[]
}
const traced = (text: string): Traced => ({ signs: [...text], ids: [...text].map((_, i) => i) })
/** Words put in, taken out, exchanged, sentences moved, until about this share of the text has changed. */
function edited(random: Random, before: Traced, share: number): Traced {
  let [signs, ids] = [[...before.signs], [...before.ids]]
  let budget = before.signs.length * share
  const place = () => {
    let at = Math.floor(random() * signs.length)
    while (at > 0 && signs[at - 1] !== ' ') at--
    return at
  }
  const wordEnd = (at: number) => {
    let end = at
    while (end < signs.length && signs[end] !== ' ') end++
    return Math.min(signs.length, end + 1)
  }
  while (budget > 0 && signs.length > 10) {
    const at = place()
    const roll = random()
    const fresh = [...`${WORDS[Math.floor(random() * WORDS.length)]} `]
    if (roll < 0.35) {
      signs.splice(at, 0, ...fresh)
      ids.splice(at, 0, ...fresh.map(() => -1))
      budget -= fresh.length
    } else if (roll < 0.7) {
      const end = wordEnd(at)
      budget -= end - at
      signs.splice(at, end - at)
      ids.splice(at, end - at)
    } else if (roll < 0.95) {
      const end = wordEnd(at)
      budget -= end - at
      signs.splice(at, end - at, ...fresh)
      ids.splice(at, end - at, ...fresh.map(() => -1))
    } else {
      // a stretch goes somewhere else
      const length = Math.min(60, signs.length - at)
      const [s, d] = [signs.splice(at, length), ids.splice(at, length)]
      const to = place()
      signs = [...signs.slice(0, to), ...s, ...signs.slice(to)]
      ids = [...ids.slice(0, to), ...d, ...ids.slice(to)]
      budget -= length
    }
  }
  return { signs, ids }
}
/** Where a passage went, if all its signs still stand in a row. */
function placeOf(after: Traced, start: number, end: number): readonly [number, number] | null {
  const at = after.ids.indexOf(start)
  return at >= 0 &&
    Array.from({ length: end - start }, (_, k) => after.ids[at + k] === start + k).every(Boolean)
    ? [at, at + end - start]
    : null
}

describe('words without their drawing', () => {
  it('are the same with ligatures, soft hyphens, joiners and any white space', () => {
    expect(readableText('  The har\u00adbour\n\n of\u00a0ﬁsh\u200b and ﬄint ').text).toBe(
      'The harbour of fish and fflint',
    )
    expect(readableText('caf\u0065\u0301').text).toBe(readableText('café').text)
    expect(readableText('שלום\u200f עולם 🐟').text).toBe('שלום עולם 🐟')
  })
  it('lead back to where they stood', () => {
    const source = ' The ﬁsh\u00admonger’s  caf\u0065\u0301 🐟'
    const { text, toSource } = readableText(source)
    const of = (words: string) => {
      const at = text.indexOf(words)
      return source.slice(toSource[at], toSource[at + words.length])
    }
    expect(of('monger')).toBe('monger')
    expect(of('fish')).toBe('ﬁsh\u00ad') // what is not seen before the next letter goes along
    expect(of('café')).toBe('caf\u0065\u0301')
    expect(of('🐟')).toBe('🐟')
  })
  it('have a place for every character and the end, and never grow twice', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('a', 'b', ' ', '\n', '\u00ad', 'ﬁ', 'e\u0301', '🐟', '\u200f', 'ש'), {
          maxLength: 40,
        }),
        parts => {
          const { text, toSource } = readableText(parts.join(''))
          expect(toSource).toHaveLength(text.length + 1)
          for (let i = 1; i < toSource.length; i++)
            expect(toSource[i]!).toBeGreaterThanOrEqual(toSource[i - 1]!)
          expect(readableText(text).text).toBe(text)
        },
      ),
      { numRuns: 300 },
    )
  })
})

describe('differences', () => {
  it('are counted as they are defined', () => {
    expect([
      editDistance('', ''),
      editDistance('mole', ''),
      editDistance('mole', 'moles'),
      editDistance('silt', 'salt'),
      editDistance('harbour', 'arbors'),
    ]).toEqual([0, 4, 1, 1, 3])
  })
  it('find the best place of a pattern and of its part', () => {
    const a = alignWithin('so that the old moole stands here', 'the old mole stands', [8, 12])
    expect(a.distance).toBe(1)
    expect('so that the old moole stands here'.slice(a.partStart, a.partEnd)).toBe('moole')
    fc.assert(
      fc.property(fc.stringMatching(/^[ab ]{0,14}$/), fc.stringMatching(/^[ab]{1,6}$/), (text, pattern) => {
        let best = pattern.length
        for (let i = 0; i <= text.length; i++)
          for (let j = i; j <= text.length; j++)
            best = Math.min(best, editDistance(text.slice(i, j), pattern))
        expect(alignWithin(text, pattern, [0, pattern.length]).distance).toBe(best)
      }),
    )
  })
})

describe('finding passages again', () => {
  const find = (text: string, before: string, words: string) => {
    const at = before.indexOf(words)
    return findAnchors(text, [makeAnchor(before, at, at + words.length)])[0]!
  }
  const page =
    'The toll roll of 1612 begins at twenty lasts. The guild’s barges are measured at nineteen. A free hull pays nothing. The toll roll of 1612 is kept in the weigh-house, where the clerk keeps a second one.'

  it('knows them at their place, elsewhere, and nearly', () => {
    expect(find(page, page, 'free hull')).toMatchObject({ start: page.indexOf('free hull'), how: 'here' })
    expect(find(`A new first sentence. ${page}`, page, 'measured at nineteen')).toMatchObject({
      start: page.indexOf('measured at') + 22,
      how: 'elsewhere',
    })
    const mended = page.replace('barges are measured', 'eleven barges were all measured')
    expect(
      mended.slice(
        find(mended, page, 'guild’s barges are measured at nineteen').start,
        find(mended, page, 'guild’s barges are measured at nineteen').end,
      ),
    ).toBe('guild’s eleven barges were all measured at nineteen')
    expect(find(mended, page, 'guild’s barges are measured at nineteen').how).toBe('nearly')
  })
  it('takes the right one of the same words, and none where the right one is gone', () => {
    const second = page.lastIndexOf('toll roll of 1612')
    const anchor = makeAnchor(page, second, second + 'toll roll of 1612'.length)
    const moved = page.replace('The toll roll of 1612 begins at twenty lasts. ', '')
    expect(findAnchors(moved, [anchor])[0]!.start).toBe(moved.indexOf('toll roll'))
    const gone = page.slice(0, page.indexOf(' The toll roll of 1612 is kept'))
    expect(findAnchors(gone, [anchor])).toEqual([null])
    expect(findAnchors('', [anchor])).toEqual([null])
  })
  it('does not guess between two places that are the same', () => {
    const twice = `${page} ${page}`
    const at = page.indexOf('free hull')
    expect(findAnchors(twice, [makeAnchor(page, at, at + 9)])[0]!.start).toBe(at) // where it was
    expect(findAnchors(`A line before. ${twice}`, [makeAnchor(page, at, at + 9)])).toEqual([null])
  })

  it('after edits of up to a fifth finds 95 of 100 whose words survive, and places none wrongly', () => {
    let [survived, found, wrong, near] = [0, 0, 0, 0]
    for (let seed = 1; seed <= 80; seed++) {
      const random = seededRandom(seed)
      const before = someText(random, 60)
      const after = edited(random, traced(before), 0.02 + random() * 0.18)
      const text = after.signs.join('')
      const anchors = Array.from({ length: 40 }, () => {
        let start = Math.floor(random() * (before.length - 60))
        while (start > 0 && before[start - 1] !== ' ') start--
        let end = start + 4 + Math.floor(random() ** 2 * 120)
        while (end < before.length && before[end] !== ' ') end++
        return makeAnchor(before, start, Math.min(before.length, end))
      })
      const all = findAnchors(text, anchors)
      for (const [i, anchor] of anchors.entries()) {
        const place = placeOf(after, anchor.start, anchor.end)
        const at = all[i]!
        if (place) {
          survived++
          if (at && at.start === place[0] && at.end === place[1]) found++
        }
        if (!at) continue
        // what stands there now must have stood there before, or beside it: as far as it is not new
        const there = after.ids.slice(Math.max(0, at.start - 10), at.end + 10).filter(id => id >= 0)
        const own = there.filter(id => id >= anchor.start - CONTEXT && id < anchor.end + CONTEXT).length
        if (own < there.length / 2) wrong++
        else if (!place) near++
      }
    }
    expect(survived).toBeGreaterThan(800)
    expect(near).toBeGreaterThan(100)
    expect(wrong).toBe(0)
    expect(found / survived).toBeGreaterThanOrEqual(0.95)
  })
})
