import { PDFDocument } from '@cantoo/pdf-lib'
import { describe, expect, it } from 'vitest'
import { signedPaper } from '#server/testing/paper'
import { cleanText, divide, wordsOf } from './sections'
import { readText } from './readText'
import { readWebPage } from './readWebPage'

const LINE = 'The keeper of the stair writes each hull upon the evening she lies, with her burden in lasts. '
const PIXEL =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
const page = `<!doctype html><html lang="sv-SE"><head><title>Who pays for silt</title><meta name="author" content="Anneli Holt"></head>
<body><header><a href="/">Harbour Review</a></header><nav><ul><li><a href="/a">Latest</a></li><li><a href="/b">Subscribe now</a></li></ul></nav>
<main><article><h1>Who pays for silt</h1><p class="byline">by Anneli Holt</p>
<p>${LINE.repeat(5)}<sup><a href="#n1" id="r1">1</a></sup></p>
<figure><img src="${PIXEL}" alt="a dredger at low tide"><figcaption>The dredger, 1611.</figcaption></figure>
<p>${LINE.repeat(5)}</p><p><img src="https://pictures.example/wall.jpg" alt="the wall before the storm"></p>
<h2>What was owed</h2><table><tr><th>hull</th><th>lasts</th></tr><tr><td>Marta</td><td>19</td></tr></table>
<p>${LINE.repeat(6)}</p><p id="n1">1. The roll of 1612, second membrane.</p></article></main>
<aside><p>You may also like our calendar of tides.</p></aside><form><input><button>Send me letters</button></form>
<footer>Terms of use and contact</footer><script>window.hit = 1</script></body></html>`

describe('an article from a page of the web', () => {
  it('comes without what stands around it, with its title, author, language, table, notes and pictures', async () => {
    const text = await readText(Buffer.from(page), 'silt.html', null)
    expect([text.title, text.credit, text.language]).toEqual(['Who pays for silt', 'Anneli Holt', 'sv-SE'])
    for (const left of [
      'Subscribe',
      'Latest',
      'You may also like',
      'Send me letters',
      'Terms of use',
      'window.hit',
    ])
      expect(text.words).not.toContain(left)
    for (const kept of [
      'What was owed',
      'Marta',
      'second membrane',
      'The dredger, 1611.',
      'Picture: the wall before the storm',
    ])
      expect(text.words).toContain(kept)
    expect(text.words.split('The keeper of the stair')).toHaveLength(17)
    const html = text.html.join('')
    expect(html).toContain(`<img src="${PIXEL}" alt="a dredger at low tide" />`)
    expect(html).not.toMatch(/pictures\.example|<script|<form|onerror/)
    expect(html).toContain('href="#t-n1"')
    expect(html).toContain('id="t-n1"')
    expect(text.remarks).toHaveLength(1)
  })

  it('is the page as it stands where nothing stands around it', () => {
    const plain = '<h1>One</h1><p>Whose silt?</p><h1>Two</h1><p>The end.</p>'
    expect(readWebPage(plain)).toEqual({
      html: plain,
      title: null,
      author: null,
      language: null,
      isWithout: false,
    })
  })

  it('keeps what is said where the page is too short, or too strange, to tell its article from the rest', () => {
    const short = readWebPage(
      '<body><nav>Places to go</nav><p>Whose silt?</p><footer>contact</footer></body>',
    )
    expect(wordsOf(short.html)).toBe('Whose silt?')
    for (const odd of [
      '<nav>',
      '<body><footer></body>',
      '<nav><nav></p></html>',
      `<form>${'<div>'.repeat(4000)}deep`,
    ])
      expect(typeof readWebPage(odd).html).toBe('string')
  })

  it('shows no picture that would have to be fetched or could hold a script, and stays as it is when cleaned again', () => {
    const once = cleanText(
      `<p><img src="data:image/svg+xml;base64,AAAA" alt="a drawing"><img src=x onerror=alert(1)><img src="${PIXEL}" alt="a &quot;b&quot;"></p>`,
    )
    expect(once).toBe(
      `<p><span>Picture: a drawing</span><span></span><img src="${PIXEL}" alt="a &quot;b&quot;" /></p>`,
    )
    expect(cleanText(once)).toBe(once)
    expect(divide(once)).toHaveLength(1)
  })
})

describe('a paper', () => {
  it('is called as it says itself, unless that is the name of a file or a program', async () => {
    const named = await readText(await signedPaper('Anneli Holt', 'Whose silt is it?'), 'x.pdf', null)
    expect([named.title, named.credit]).toEqual(['Anneli Holt: draft', 'Anneli Holt'])
    for (const name of ['scan0012.pdf', 'Microsoft Word - draft2.doc', 'Untitled', 'Document1']) {
      const paper = await PDFDocument.create()
      paper.addPage([200, 300])
      paper.setTitle(name)
      paper.setLanguage('de-AT')
      const read = await readText(Buffer.from(await paper.save()), 'x.pdf', null)
      expect([read.title, read.credit, read.language]).toEqual([null, null, 'de-AT'])
    }
  })
})
