import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { GRAM, GramIndex } from './gramIndex'
import { gatherPassages, heatOf, layStretches, passageLetterOf, weightOf, type Talked } from './passages'
import { placeSidenotes } from './placeSidenotes'
import { joinParts, partAt } from './reading'
import { readWebVtt, timeOfPassage, writeWebVtt } from '#core/files/webVtt'

describe('places by their letters', () => {
  it('are all found, whatever is looked for', () => {
    const letters = fc.stringMatching(/^[ab ]{0,60}$/)
    fc.assert(
      fc.property(letters, fc.stringMatching(/^[ab ]{1,12}$/), (text, words) => {
        const all: number[] = []
        for (let at = text.indexOf(words); at >= 0; at = text.indexOf(words, at + 1)) all.push(at)
        expect(new GramIndex(text).occurrences(words)).toEqual(all)
        if (words.length >= GRAM)
          expect([...new GramIndex(text).offsets(words, 0)]).toEqual(
            all.length > 0 || text.includes(words.slice(0, GRAM))
              ? [...text].map((_, i) => i).filter(i => text.startsWith(words.slice(0, GRAM), i))
              : [],
          )
      }),
      { numRuns: 60 },
    )
  })
})

describe('passages', () => {
  const note = (id: string, start: number, end: number, own = false) => ({ id, start, end, own })
  it('are gathered by their words and named by letters in the order of the text', () => {
    expect(
      gatherPassages([
        note('x', 30, 40),
        note('y', 5, 9, true),
        note('z', 30, 40, true),
        note('w', 5, 20),
      ]).map(p => [p.letter, p.start, p.end, p.ids.join(''), p.own]),
    ).toEqual([
      ['a', 5, 20, 'w', false],
      ['b', 5, 9, 'y', true],
      ['c', 30, 40, 'xz', true],
    ])
    expect([
      passageLetterOf(0),
      passageLetterOf(25),
      passageLetterOf(26),
      passageLetterOf(27),
      passageLetterOf(701),
      passageLetterOf(702),
    ]).toEqual(['a', 'z', 'aa', 'ab', 'zz', 'aaa'])
  })
  it('that overlap have a line as thick as the notes over each letter, and no letter twice', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ start: fc.nat(30), length: fc.integer({ min: 1, max: 12 }), own: fc.boolean() }),
          { maxLength: 12 },
        ),
        list => {
          const notes = list.map((n, i) => note(String(i), n.start, n.start + n.length, n.own))
          const stretches = layStretches(gatherPassages(notes))
          for (let at = 0; at < 45; at++) {
            const over = notes.filter(n => n.start <= at && n.end > at)
            const here = stretches.filter(s => s.start <= at && s.end > at)
            expect(here).toHaveLength(over.length > 0 ? 1 : 0)
            if (here[0]) {
              expect(here[0].notes).toBe(over.length)
              expect(here[0].own).toBe(over.some(n => n.own))
            }
          }
        },
      ),
    )
    expect([1, 2, 3, 4, 5, 90].map(weightOf)).toEqual([1, 2, 3, 3, 4, 4])
  })
  it('are as hot as the talk and the people they drew, open questions counting for more', () => {
    const talked = (
      id: string,
      start: number,
      end: number,
      replies: number,
      people: string[],
      open = false,
    ): Talked => ({ ...note(id, start, end), kind: open ? 'question' : 'note', replies, people, open })
    const hot = heatOf([
      talked('a', 0, 10, 1, ['liv', 'nico']),
      talked('b', 4, 10, 0, ['paz'], true),
      talked('c', 20, 60, 5, ['liv', 'nico']),
      talked('d', 55, 70, 0, ['oona']),
    ])
    expect(hot.map(h => [h.ids.join(''), h.notes, h.replies, h.open, h.people, h.heat])).toEqual([
      ['ab', 2, 1, 1, 3, 10],
      ['c', 1, 5, 0, 2, 9],
      ['d', 1, 0, 0, 1, 1],
    ])
  })
})

describe('sidenotes', () => {
  it('stand level with their lines where there is room, and share the way where there is none', () => {
    expect(
      placeSidenotes(
        [
          { wanted: 0, height: 20 },
          { wanted: 100, height: 20 },
        ],
        8,
      ),
    ).toEqual([0, 100])
    expect(
      placeSidenotes(
        [
          { wanted: 50, height: 20 },
          { wanted: 50, height: 20 },
        ],
        4,
      ),
    ).toEqual([38, 62])
    expect(
      placeSidenotes(
        [
          { wanted: 5, height: 40 },
          { wanted: 5, height: 20 },
        ],
        4,
      ),
    ).toEqual([0, 44])
    expect(placeSidenotes([], 4)).toEqual([])
  })
  it('never cover one another, and no other order of pushing is nearer', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ step: fc.nat(40), height: fc.integer({ min: 5, max: 60 }) }), {
          minLength: 1,
          maxLength: 8,
        }),
        fc.array(fc.integer({ min: -6, max: 6 }), { minLength: 8, maxLength: 8 }),
        (list, nudges) => {
          let at = 400
          const notes = list.map(({ step, height }) => ({ wanted: (at += step), height }))
          const tops = placeSidenotes(notes, 4)
          const apart = (t: readonly number[]) =>
            t.every((top, i) => i === 0 || top >= t[i - 1]! + notes[i - 1]!.height + 4 - 1e-9)
          const cost = (t: readonly number[]) =>
            t.reduce((sum, top, i) => sum + (top - notes[i]!.wanted) ** 2, 0)
          expect(apart(tops)).toBe(true)
          const other = tops.map((top, i) => top + nudges[i]!)
          if (apart(other)) expect(cost(other)).toBeGreaterThanOrEqual(cost(tops) - 1e-6)
        },
      ),
    )
  })
})

describe('a transcript', () => {
  it('is read with voices, marks left out, and written so that it is read the same', () => {
    const cues = readWebVtt(
      '\ufeffWEBVTT - a pilot\r\n\r\nNOTE not said\r\n\r\nSTYLE\r\n::cue {}\r\n\r\n2\r\n01:00.500 --> 01:04.000 align:start\r\n<v.loud Pilot>We <i>lie</i> off\r\nfor the tide &amp; wait\r\n\r\n00:00:01.000 --> 00:00:03.250\r\nWho is it?\r\n',
    )
    expect(cues).toEqual([
      { from: 1, to: 3.25, voice: null, text: 'Who is it?' },
      { from: 60.5, to: 64, voice: 'Pilot', text: 'We lie off for the tide & wait' },
    ])
    expect(readWebVtt(writeWebVtt(cues))).toEqual(cues)
    const odd = [{ from: 0, to: 4000.001, voice: 'A & B', text: 'a < b > c &amp; d' }]
    expect(readWebVtt(writeWebVtt(odd))).toEqual(odd)
  })
  it('is refused with its line where it is none', () => {
    expect(() => readWebVtt('1\n00:00.000 --> 00:01.000\nx')).toThrow(
      expect.objectContaining({ reason: 'noHeader' }),
    )
    expect(() => readWebVtt('WEBVTT\n\nNOTE nothing')).toThrow(expect.objectContaining({ reason: 'noCues' }))
    expect(() => readWebVtt('WEBVTT\n\n00:09.000 --> 00:01.000\nx')).toThrow(
      expect.objectContaining({ reason: 'badTime', line: 3 }),
    )
    expect(() => readWebVtt('WEBVTT\n\n0:9 --> 0:10\nx')).toThrow(
      expect.objectContaining({ reason: 'badTime' }),
    )
  })
  it('tells when words of it are said', () => {
    const cues = [
      { from: 0, to: 2, start: 0, end: 10 },
      { from: 2, to: 5, start: 11, end: 20 },
      { from: 5, to: 9, start: 21, end: 30 },
    ]
    expect(timeOfPassage(cues, 5, 15)).toEqual([0, 5])
    expect(timeOfPassage(cues, 10, 11)).toBeNull()
  })
})

describe('parts of a text', () => {
  it('lie end to end, and each place is in one of them', () => {
    const part = (text: string) => ({
      text,
      label: '',
      heading: null,
      aspect: null,
      drawnOnly: false,
      time: null,
    })
    const { text, parts } = joinParts([part('one two'), part(''), part('three')])
    expect(text).toBe('one two  three')
    expect(parts.map(p => [p.number, p.start, p.end, p.words])).toEqual([
      [1, 0, 7, 2],
      [2, 8, 8, 0],
      [3, 9, 14, 1],
    ])
    expect([0, 7, 8, 9, 13, 99].map(at => partAt(parts, at).number)).toEqual([1, 1, 2, 3, 3, 3])
  })
})
