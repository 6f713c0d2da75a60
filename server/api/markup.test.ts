import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { definesCommands } from '#core/contributing/formula'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { testWorld, type World } from '#server/testing/world'

/** Ways of getting a browser to run something, as collected in public cheat sheets of cross-site scripting. */
const VECTORS = [
  '<script>alert(1)</script>',
  '<img src=x onerror=alert(1)>',
  '<svg onload=alert(1)>',
  '<iframe srcdoc="<script>alert(1)</script>">',
  '<a href="javascript:alert(1)">x</a>',
  '<a href="java\tscript:alert(1)">x</a>',
  '<a href=" &#14; javascript:alert(1)">x</a>',
  '<math><mtext></table><img src onerror=alert(1)></mtext></math>',
  '<style>@import url(//elsewhere.example)</style>',
  '<body onload=alert(1)>',
  '<input autofocus onfocus=alert(1)>',
  '<details open ontoggle=alert(1)>',
  '"><script>alert(1)</script>',
  "'-alert(1)-'",
  '<object data="data:text/html;base64,PHNjcmlwdD4=">',
  '<embed src="javascript:alert(1)">',
  '<form action="javascript:alert(1)"><button>',
  '<base href="//elsewhere.example/">',
  '<meta http-equiv="refresh" content="0;url=javascript:alert(1)">',
  '<noscript><p title="</noscript><img src=x onerror=alert(1)>">',
  '<svg><a xlink:href="javascript:alert(1)"><text>x</text></a></svg>',
  '<video><source onerror="alert(1)">',
  '<template><script>alert(1)</script></template>',
  '<!--><img src=x onerror=alert(1)>-->',
  '<x contenteditable onblur=alert(1)>',
  '<marquee onstart=alert(1)>',
  '{{constructor.constructor("alert(1)")()}}',
  '<div style="background:url(javascript:alert(1))">',
]
const HREFS = [
  'javascript:alert(1)',
  'JaVaScRiPt:alert(1)',
  ' javascript:alert(1)',
  'java\nscript:alert(1)',
  'data:text/html,<script>alert(1)</script>',
  'vbscript:msgbox(1)',
  '//elsewhere.example" onclick="alert(1)',
  'https://x.example/"><script>alert(1)</script>',
  'file:///etc/passwd',
  'blob:https://x.example/1',
]
const FORMULAS = [
  '\\href{javascript:alert(1)}{x}',
  '\\htmlData{onclick=alert(1)}{x}',
  '\\includegraphics{x}',
  '\\url{javascript:alert(1)}',
  '</math><script>alert(1)</script>',
  '\\def\\a{\\a\\a}\\a',
]

/** What stands in stored HTML that a browser could run or fetch from elsewhere. */
const dangerous = (html: string): string[] => [
  ...(html.match(
    /<\/?(script|style|iframe|object|embed|form|input|svg|base|meta|template|video|img|details|marquee|body|noscript)\b/gi,
  ) ?? []),
  ...[...html.matchAll(/<[a-z][^>]*>/gi)].flatMap(
    ([tag]) => tag.match(/\s(on\w+|style|srcdoc|formaction|xlink:href)\s*=/gi) ?? [],
  ),
  ...[...html.matchAll(/<[a-z][^>]*?\s(?:href|src)="([^"]*)"/gi)]
    .map(([, url]) => url!)
    .filter(url => !/^(https?:|mailto:|\/api\/files\/)/i.test(url)),
]

describe('what is written stays words', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())

  it('whatever markup, address or formula is sent, in a post, a title, or a document made by hand', async () => {
    const liv = await world.as('liv')
    const [quay] = await world.db
      .select()
      .from(t.activities)
      .where(eq(t.activities.title, 'Letters from the quay'))
    const paragraph = (content: unknown) => ({ type: 'paragraph', content })
    const documents = [
      { type: 'doc', content: VECTORS.map(text => paragraph([{ type: 'text', text }])) },
      {
        type: 'doc',
        content: HREFS.map(href =>
          paragraph([
            {
              type: 'text',
              text: 'click',
              marks: [{ type: 'link', attrs: { href, onclick: 'alert(1)', target: '"><script>' } }],
            },
          ]),
        ),
      },
      {
        type: 'doc',
        content: FORMULAS.filter(latex => !definesCommands(latex)).map(latex =>
          paragraph([
            { type: 'inlineMath', attrs: { latex } },
            { type: 'text', text: 'as shown' },
          ]),
        ),
      },
      {
        type: 'doc',
        content: [
          { type: 'image', attrs: { src: 'x', onerror: 'alert(1)' } },
          {
            type: 'iframe',
            attrs: { src: 'javascript:alert(1)' },
            content: [paragraph([{ type: 'text', text: 'inside' }])],
          },
          { type: 'script', content: [{ type: 'text', text: 'alert(1)' }] },
          {
            ...paragraph([
              {
                type: 'text',
                text: 'x',
                marks: [{ type: 'textStyle', attrs: { style: 'x' } }, { type: '__proto__' }],
              },
            ]),
            attrs: { onclick: 'alert(1)', style: 'x' },
          },
        ],
      },
    ]
    for (const [i, doc] of documents.entries()) {
      const { status, body } = await liv.json<{ id: string }>(
        'POST',
        `/api/activities/${quay!.id}/contributions`,
        { key: v7(), parentId: null, slot: `s${i}`, title: VECTORS[i], doc },
      )
      expect(status).toBe(200)
      const [row] = await world.db.select().from(t.contributions).where(eq(t.contributions.id, body.id))
      expect(dangerous(row!.html), row!.html).toEqual([])
    }
    const defining = FORMULAS.filter(definesCommands)
    expect(defining.length).toBeGreaterThan(0)
    for (const latex of defining) {
      const doc = { type: 'doc', content: [paragraph([{ type: 'inlineMath', attrs: { latex } }])] }
      const write = { key: v7(), parentId: null, slot: 'defining', title: 'Formulas', doc }
      expect((await liv.send('POST', `/api/activities/${quay!.id}/contributions`, write)).status).toBe(422)
    }
    // in exports and feeds titles and words are words, too
    const feed = await liv.json<{ address: string }>('POST', `/api/activities/${quay!.id}/feed`)
    const html = (await liv.json<{ text: string }>('GET', `/api/activities/${quay!.id}/export?as=html`)).body
      .text
    expect(html.match(/<script|<img src=x|<svg on/gi)).toBeNull()
    const atom = await (await fetch(new URL(new URL(feed.body.address).pathname, world.address))).text()
    expect(atom).toMatch(/^<\?xml/)
    expect(atom.match(/<script|<img src=x|<svg on/gi)).toBeNull()
    const page = await (await liv.send('GET', `/seminars/${world.seminar.id}/activities/${quay!.id}`)).text()
    expect(page.match(/<script>alert|<img src=x|<svg onload/gi)).toBeNull()
  })
})
