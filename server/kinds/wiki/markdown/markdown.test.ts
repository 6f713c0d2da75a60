import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plainText, type RichNode } from '#core/contributing/richText'
import { readMarkdownPage } from './readPage'
import { pageMarkdown } from './writePage'

const text = (value: string, ...types: string[]): RichNode => ({
  type: 'text',
  text: value,
  ...(types.length > 0 && { marks: types.map(type => ({ type })) }),
})
const p = (...content: RichNode[]): RichNode => ({ type: 'paragraph', content })
const places = {
  picture: (src: string) => src.replace('/api/files/', 'pictures/'),
  page: (title: string) => `${title}.md`,
}
const there = (doc: RichNode) => pageMarkdown(doc, places)
const back = (doc: RichNode) => readMarkdownPage('x.md', there(doc)).doc

describe('a page as Markdown', () => {
  it.each<[string, RichNode[]]>([
    [
      'headings of two levels',
      [
        { type: 'heading', attrs: { level: 3 }, content: [text('One')] },
        { type: 'heading', attrs: { level: 4 }, content: [text('Two')] },
        p(text('Three.')),
      ],
    ],
    [
      'marks',
      [
        p(
          text('a '),
          text('bold', 'bold'),
          text(' and '),
          text('slanted', 'italic'),
          text(' and '),
          text('both', 'bold', 'italic'),
          text(' and '),
          text('gone', 'strike'),
          text(' and '),
          text('code', 'code'),
        ),
      ],
    ],
    [
      'signs that Markdown would take for its own',
      [
        p(
          text(
            '1. not a list, *not* bold, [not](a link), # no heading, a_b_c, 5 $ and 6 $, `tick`, | bar, \\ back, ~~no~~, <b>no</b>, &amp; so on',
          ),
        ),
      ],
    ],
    [
      'links out and to pages',
      [
        p(
          { ...text('out'), marks: [{ type: 'link', attrs: { href: 'https://harbour.example/a_b?c=(d)' } }] },
          text(' and '),
          { ...text('in'), marks: [{ type: 'pageLink', attrs: { title: 'The two moles, 1589' } }] },
          text('.'),
        ),
      ],
    ],
    [
      'lists within lists',
      [
        {
          type: 'bulletList',
          content: [
            {
              type: 'listItem',
              content: [
                p(text('one')),
                { type: 'orderedList', content: [{ type: 'listItem', content: [p(text('inner'))] }] },
              ],
            },
            { type: 'listItem', content: [p(text('two'))] },
          ],
        },
      ],
    ],
    [
      'a table',
      [
        {
          type: 'table',
          content: [
            {
              type: 'tableRow',
              content: [
                { type: 'tableHeader', content: [p(text('to whom'))] },
                { type: 'tableHeader', content: [p(text('how much'))] },
              ],
            },
            {
              type: 'tableRow',
              content: [
                { type: 'tableCell', content: [p(text('the pilot | his mate'))] },
                { type: 'tableCell', content: [{ type: 'paragraph' }] },
              ],
            },
          ],
        },
      ],
    ],
    [
      'formulas',
      [
        p(text('depth '), { type: 'inlineMath', attrs: { latex: 'd_0 - s\\,t' } }, text(' each year')),
        { type: 'blockMath', attrs: { latex: 'd(t) = d_0 - s\\,t' } },
      ],
    ],
    [
      'footnotes with and without a source',
      [
        p(
          text('Nineteen'),
          { type: 'footnote', attrs: { text: 'Four of them alike.', source: 'Town book, leaf 61' } },
          text(' marks'),
          { type: 'footnote', attrs: { text: 'So it is said.', source: '' } },
          text('.'),
        ),
      ],
    ],
    [
      'quotations, rules and line breaks',
      [
        { type: 'blockquote', content: [p(text('quoted'))] },
        { type: 'horizontalRule' },
        p(text('one'), { type: 'hardBreak' }, text('two')),
      ],
    ],
    [
      'code over several lines, with its indents, and a line of it within words',
      [
        p(text('So:')),
        p(text('for hull in roll:', 'code')),
        { type: 'paragraph' },
        p(text('    toll(hull) `twice`', 'code')),
        p(text('and '), text('toll', 'code'), text(' again')),
        {
          type: 'bulletList',
          content: [{ type: 'listItem', content: [p(text('in a list')), p(text('x = 1', 'code'))] }],
        },
      ],
    ],
    [
      'tasks, open and done, and a task that begins with a bold word',
      [
        {
          type: 'bulletList',
          content: [
            { type: 'listItem', content: [p(text('☐ read the roll'))] },
            { type: 'listItem', content: [p(text('☑ measure the stairs'))] },
            { type: 'listItem', content: [p(text('☐ '), text('ask', 'bold'), text(' the pilot'))] },
            { type: 'listItem', content: [p(text('no task'))] },
          ],
        },
      ],
    ],
    [
      'underlined, raised and lowered letters, and words of another language',
      [
        p(
          text('un', 'underline'),
          text('der, m'),
          text('2', 'superscript'),
          text(' and H'),
          text('2', 'bold', 'subscript'),
          text('O, '),
          { ...text('ميناء'), marks: [{ type: 'language', attrs: { lang: 'ar' } }] },
        ),
      ],
    ],
    [
      'lines within a cell',
      [
        {
          type: 'table',
          content: [
            {
              type: 'tableRow',
              content: [
                { type: 'tableHeader', content: [p(text('one'), { type: 'hardBreak' }, text('two'))] },
              ],
            },
          ],
        },
      ],
    ],
    ['other scripts', [p(text('ميناء и гавань 港 e\u0301 🐟'))]],
  ])('comes back as it was: %s', (_, content) => {
    expect(back({ type: 'doc', content })).toEqual({ type: 'doc', content })
  })
  it('keeps what a picture shows, and says where its file is', () => {
    expect(
      there({
        type: 'doc',
        content: [{ type: 'image', attrs: { src: '/api/files/x.png', alt: 'two moles' } }],
      }),
    ).toBe('![two moles](pictures/x.png)\n')
    expect(readMarkdownPage('x.md', '![two moles](pictures/x.png)').doc.content).toEqual([
      p(text('two moles')),
    ])
  })
  it('takes pictures whose files are there, as blocks of their own, wherever they stood', () => {
    const at = (url: string) => (url.startsWith('pictures/') ? `/api/files/${url.slice(9, -4)}` : null)
    const image = (n: number, alt: string): RichNode => ({
      type: 'image',
      attrs: { src: `/api/files/${n}`, alt },
    })
    const read = (markdown: string) => readMarkdownPage('x.md', markdown, at)
    expect(read('before ![moles](pictures/1.png) after').doc.content).toEqual([
      p(text('before ')),
      image(1, 'moles'),
      p(text(' after')),
    ])
    expect(read('![moles][m]\n\n[m]: pictures/1.png').doc.content).toEqual([image(1, 'moles')])
    expect(read('## Moles ![moles](pictures/1.png)').doc.content).toEqual([
      { type: 'heading', attrs: { level: 3 }, content: [text('Moles ')] },
      image(1, 'moles'),
    ])
    expect(read('- ![moles](pictures/1.png)').doc.content).toEqual([
      {
        type: 'bulletList',
        content: [{ type: 'listItem', content: [{ type: 'paragraph' }, image(1, 'moles')] }],
      },
    ])
    const page: RichNode = { type: 'doc', content: [p(text('two')), image(1, 'moles'), image(2, '')] }
    expect(
      readMarkdownPage(
        'x.md',
        pageMarkdown(page, { ...places, picture: src => `pictures/${src.at(-1)}.png` }),
        at,
      ).doc,
    ).toEqual(page)
  })
  it('counts what a page has no place for', () => {
    const { doc, left } = readMarkdownPage(
      'x.md',
      '![one](a.png) ![two][b] [roll](roll.pdf) [here](#part)\n\n4. four\n5. five\n\n| a | b |\n| --: | - |\n| 1 | 2 |\n\n[b]: b.png',
    )
    expect(left).toEqual({ pictures: 2, links: 2, numbers: 1, columns: 1 })
    expect(plainText(doc)).toContain('one two roll here')
  })
  it('follows links by reference, and keeps all paragraphs of a footnote', () => {
    const { doc } = readMarkdownPage(
      'x.md',
      '[mole][m] x[^1]\n\n[m]: The%20mole.md\n[^1]: A.\n\n    B.\n\n    C.',
    )
    expect(doc.content).toEqual([
      p({ ...text('mole'), marks: [{ type: 'pageLink', attrs: { title: 'The mole' } }] }, text(' x'), {
        type: 'footnote',
        attrs: { text: 'A.', source: 'B. C.' },
      }),
    ])
  })
  it('loses no word on the way out and back, however words are marked and nested', () => {
    const word = fc.constantFrom(
      'mole',
      'to*ll',
      '_quay_',
      '1.',
      '#',
      '<u>',
      'a|b',
      '`',
      '&amp;',
      '☐',
      '[x]',
      '港',
      '~~',
    )
    const mark = fc.constantFrom('bold', 'italic', 'underline', 'strike', 'code', 'superscript', 'subscript')
    const run = fc
      .tuple(
        fc.array(word, { minLength: 1, maxLength: 3 }),
        fc.uniqueArray(mark, { maxLength: 2 }),
        fc.constantFrom('', ' '),
      )
      .map(([words, marks, space]) => text(words.join(' ') + space, ...marks))
    const paragraph = fc.array(run, { minLength: 1, maxLength: 4 }).map(runs => p(...runs))
    const { block } = fc.letrec<{ block: RichNode }>(tie => ({
      block: fc.oneof(
        { depthSize: 'small', maxDepth: 3 },
        paragraph,
        fc.record({
          type: fc.constant('blockquote'),
          content: fc.array(tie('block'), { minLength: 1, maxLength: 2 }),
        }),
        fc
          .array(fc.tuple(paragraph, fc.array(tie('block'), { maxLength: 1 })), {
            minLength: 1,
            maxLength: 3,
          })
          .map(items => ({
            type: 'bulletList',
            content: items.map(([first, more]) => ({ type: 'listItem', content: [first, ...more] })),
          })),
      ),
    }))
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 4 }), content => {
        const doc = { type: 'doc', content }
        const plain = (node: RichNode) => plainText(node).replace(/\s+/g, '')
        expect(plain(back(doc))).toBe(plain(doc))
      }),
      { numRuns: 200 },
    )
  })
  it('takes its title from the first heading, else from its file', () => {
    expect(readMarkdownPage('a/The%20two_moles.md', 'Text.').title).toBe('The two moles')
    expect(readMarkdownPage('x.md', '# The *chain*\n\nText.')).toMatchObject({
      title: 'The chain',
      doc: { type: 'doc', content: [p(text('Text.'))] },
    })
    expect(readMarkdownPage('.md', '').title).toBe('Untitled')
  })
  it('leaves markup of the file as words, and leads nowhere it should not', () => {
    expect(
      JSON.stringify(
        readMarkdownPage('x.md', '<script>a</script>\n\n[go](javascript:alert(1)) [mail](mailto:a@b.example)')
          .doc,
      ),
    ).not.toContain('javascript')
  })
})
