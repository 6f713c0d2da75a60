import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { linkTerms } from './linkTerms'
import { sameTerm, TermFinder, type KnownTerm } from './termFinder'
import { definedAs } from './definedAs'
import { termOfTheDay } from './termOfTheDay'

const term = (id: string, forms: string[] = [id], whole = true): KnownTerm => ({ id, forms, whole })
const link = (html: string, ...terms: KnownTerm[]) =>
  linkTerms(html, new TermFinder(terms), id => `#${id}`).replaceAll(
    /<a class="term" data-term="([^"]*)" href="[^"]*">(.*?)<\/a>/gs,
    '[$2|$1]',
  )

describe('finding terms', () => {
  it('takes the longest of those that begin at one place, and nothing inside it', () => {
    expect(
      link('The harbour board met in the harbour.', term('harbour'), term('board', ['harbour board'])),
    ).toBe('The [harbour board|board] met in the [harbour|harbour].')
    expect(
      link('A pilot boat.', term('a', ['pilot boat']), term('b', ['boat house']), term('c', ['boat'])),
    ).toBe('A [pilot boat|a].')
  })
  it('knows whole words, or parts where a term is set so', () => {
    expect(link('The moles of Molesworth, a mole.', term('mole'))).toBe(
      'The moles of Molesworth, a [mole|mole].',
    )
    expect(link('The moles.', term('mole', ['mole'], false))).toBe('The [mole|mole]s.')
    expect(link('Ömole, moleé and 𝒜mole', term('mole'))).toBe('Ömole, moleé and 𝒜mole')
  })
  it('knows other forms, other case, other apostrophes and a line break in between', () => {
    expect(link("WIDOW’S\nSHARE, widows' shares", term('w', ["widow's share", 'widows’ shares']))).toBe(
      "[WIDOW’S\nSHARE|w], widows' shares",
    )
  })
  it('takes signs as they are', () => {
    expect(
      link(
        'a.c abc (sic) c++ $1 [x] a|b \\d',
        term('dot', ['a.c']),
        term('sic', ['(sic)']),
        term('plus', ['c++']),
        term('money', ['$1']),
        term('x', ['[x]']),
        term('or', ['a|b']),
        term('d', ['\\d']),
      ),
    ).toBe('[a.c|dot] abc [(sic)|sic] [c++|plus] [$1|money] [[x]|x] [a|b|or] [\\d|d]')
  })
  it('finds what a plain search finds, whatever the terms', () => {
    fc.assert(
      fc.property(
        fc.array(fc.stringMatching(/^[ab +]{1,4}$/), { minLength: 1, maxLength: 6 }),
        fc.stringMatching(/^[ab +.]{0,40}$/),
        (forms, text) => {
          const terms = [...new Set(forms.map(f => f.trim().replace(/\s+/g, ' ')))].filter(Boolean)
          const hits = new TermFinder(terms.map(f => term(f, [f], false))).find(text)
          // leftmost, longest, one after the other
          const plain: Array<{ id: string; start: number; end: number }> = []
          for (let i = 0; i < text.length;) {
            const best = terms.filter(f => text.startsWith(f, i)).sort((a, b) => b.length - a.length)[0]
            if (best) plain.push({ id: best, start: i, end: i + best.length })
            i += best ? best.length : 1
          }
          expect(hits).toEqual(plain)
        },
      ),
      { numRuns: 500 },
    )
  })
})

describe('making them links', () => {
  it('links the first of each, never in links, code or formulas', () => {
    expect(
      link(
        '<p>See <a href="x">mole</a> <code>mole</code> <math><mi>mole</mi></math>, a mole, a mole.</p>',
        term('mole'),
      ),
    ).toBe(
      '<p>See <a href="x">mole</a> <code>mole</code> <math><mi>mole</mi></math>, a [mole|mole], a mole.</p>',
    )
  })
  it('leaves attributes, entities and tags as they are', () => {
    const html =
      '<p title="mole">R&amp;D &lt;mole&gt; &quot;last&quot;</p><img src="/api/files/x" alt="a mole > b"><p>R&amp;D</p>'
    expect(link(html, term('mole'), term('rd', ['R&D']), term('amp'), term('lt'))).toBe(
      '<p title="mole">[R&amp;D|rd] &lt;[mole|mole]&gt; &quot;last&quot;</p><img src="/api/files/x" alt="a mole > b"><p>R&amp;D</p>',
    )
  })
  it('knows no word that is only half in an element, and none across paragraphs', () => {
    expect(
      link(
        '<p>a <em>har</em>bour</p><p>pilot</p><p>oath</p>',
        term('har'),
        term('bour'),
        term('oath', ['pilot oath']),
      ),
    ).toBe('<p>a <em>har</em>bour</p><p>pilot</p><p>oath</p>')
  })
  it('leaves out what it is told to: a term is not linked in its own definition', () => {
    expect(linkTerms('<p>mole</p>', new TermFinder([term('mole')]), id => id, new Set(['mole']))).toBe(
      '<p>mole</p>',
    )
  })
  it('changes nothing but by putting links in', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom(
            '<p>',
            '</p>',
            '<em>',
            '</em>',
            'mole',
            ' ',
            '&amp;',
            'pilot',
            '<code>',
            '</code>',
            '<br>',
            's',
          ),
          { maxLength: 30 },
        ),
        parts => {
          const html = parts.join('')
          expect(
            linkTerms(
              html,
              new TermFinder([term('mole'), term('pilot', ['pilot', 'pilots'])]),
              id => id,
            ).replaceAll(/<a class="term"[^>]*>(.*?)<\/a>/g, '$1'),
          ).toBe(html)
        },
      ),
      { numRuns: 300 },
    )
  })
  it('manages two thousand terms in five thousand posts', () => {
    const terms = Array.from({ length: 2000 }, (_, i) =>
      term(`t${i}`, [`word${i}`, `word${i} of the sea`], i % 2 === 0),
    )
    const finder = new TermFinder(terms)
    for (let post = 0; post < 5000; post++) {
      const html = `<p>${Array.from({ length: 30 }, (_, k) => `word${(post * 7 + k * 13) % 3000}`).join(' and ')}</p>`
      const linked = linkTerms(html, finder, id => id)
      const expected = new Set(
        Array.from({ length: 30 }, (_, k) => (post * 7 + k * 13) % 3000).flatMap(n => {
          if (n < 2000 && n % 2 === 0) return [n]
          // in parts: the longest term that its word begins with, "word123" also in "word1234"
          for (let d = String(n); d; d = d.slice(0, -1))
            if (Number(d) < 2000 && Number(d) % 2 === 1 && String(Number(d)) === d) return [Number(d)]
          return n < 2000 ? [n] : []
        }),
      )
      expect(linked.match(/data-term/g)?.length ?? 0).toBe(expected.size)
    }
  })
})

it('knows the same term by its letters', () =>
  expect(sameTerm('  Widow’s\u00a0 Share ')).toBe(sameTerm("widow's share")))

it('finds the term a word is already, by the term or another form of it, and never itself', () => {
  const terms = [
    { id: 'k', term: 'kedge', forms: ['kedges', 'kedging'] },
    { id: 's', term: 'silt', forms: [] },
  ]
  expect(definedAs(' Kedging ', terms, null)?.id).toBe('k')
  expect(definedAs('SILT', terms, null)?.id).toBe('s')
  expect(definedAs('kedge', terms, 'k')).toBeNull()
  expect(definedAs('', terms, null)).toBeNull()
})

it('brings every term up once before one comes again', () => {
  const ids = ['a', 'b', 'c', 'd', 'e']
  const days = Array.from({ length: 20 }, (_, i) =>
    new Date(Date.UTC(2026, 8, 1 + i)).toISOString().slice(0, 10),
  )
  const all = days.map(day => termOfTheDay(ids, day)!)
  const first = all.findIndex((_, i) => Math.round(Date.parse(days[i]!) / 86_400_000) % 5 === 0)
  expect(new Set(all.slice(first, first + 5))).toEqual(new Set(ids))
  expect(termOfTheDay([], '2026-09-01')).toBeNull()
})
