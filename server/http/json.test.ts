import { describe, expect, it } from 'vitest'
import { parseJson, requireWellFormed } from './json'
import { Problem } from './problem'

describe('texts of a request', () => {
  it('are refused with U+0000 or half of a surrogate pair, as a value or as a key; other letters are taken', () => {
    for (const bad of ['a\0b', '\ud83d', 'x\udc00y', '\udc00\ud83d'])
      for (const body of [{ text: bad }, { [bad]: 1 }, [[bad]]])
        expect(() => parseJson(JSON.stringify(body))).toThrow(Problem)
    for (const good of ['', 'ferry 🛶', 'ﬁ', 'אבג', '\u200d'])
      expect(parseJson(JSON.stringify({ text: good }))).toEqual({ text: good })
    expect(() => requireWellFormed('half \ud83d')).toThrow('cannot be stored')
  })
  it('that are no JSON, or are nested without end, are refused and break nothing', () => {
    for (const raw of ['{', 'undefined', '['.repeat(300_000)])
      expect(() => parseJson(raw)).toThrow('could not be read')
  })
})
