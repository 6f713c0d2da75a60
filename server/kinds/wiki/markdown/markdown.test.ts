import { describe, expect, it } from 'vitest'
import type { RichNode } from '#core/contributing/richText'
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
  it('takes its title from the first heading, else from its file', () => {
    expect(readMarkdownPage('a/The%20two_moles.md', 'Text.').title).toBe('The two moles')
    expect(readMarkdownPage('x.md', '# The *chain*\n\nText.')).toEqual({
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
