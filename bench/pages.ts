import type { Browser } from '@playwright/test'
import { seededRandom } from '#core/chance/seededRandom'
import { linkTerms } from '#core/kinds/lexicon/linkTerms'
import { TermFinder } from '#core/kinds/lexicon/termFinder'
import type { RichNode } from '#core/contributing/richText'
import { changedText } from '#core/kinds/wiki/changedText'
import { comparePages } from '#core/kinds/wiki/comparePages'
import { followAuthors, GoneWords, standingWords, type Runs } from '#core/kinds/wiki/followAuthors'
import { PageReader, wordsIn, type PageText } from '#core/kinds/wiki/pageText'
import { email, type World } from '#server/testing/world'

const VOCABULARY = 3000
const PARAGRAPH = 80 // words

/**
 * A page of so many words, and so many versions of it: each changes words here and there, some move, bring
 * back or take out a paragraph.
 */
export function history(words: number, versions: number): RichNode[] {
  const random = seededRandom(words)
  const paragraph = () =>
    Array.from({ length: PARAGRAPH }, () => `w${Math.floor(random() ** 2 * VOCABULARY)}`).join(' ') + '.'
  const at = <T>(list: readonly T[]) => Math.floor(random() * list.length)
  let lines = Array.from({ length: Math.round(words / PARAGRAPH) }, paragraph)
  const doc = (): RichNode => ({
    type: 'doc',
    content: lines.map(text => ({ type: 'paragraph', content: [{ type: 'text', text }] })),
  })
  const all = [doc()]
  while (all.length < versions) {
    lines = [...lines]
    const roll = random()
    if (roll < 0.1) lines.splice(at(lines), 0, ...lines.splice(at(lines), 1))
    else if (roll < 0.15) lines[at(lines)] = paragraph()
    for (let n = 0; n < 4; n++) {
      const k = at(lines)
      const own = lines[k]!.split(' ')
      own.splice(at(own), 3, `n${all.length}`, `w${at(own)}`, 'and')
      lines[k] = own.join(' ')
    }
    all.push(doc())
  }
  return all
}

/** Authorship followed through all versions, and the first compared with the last. @returns milliseconds of each */
export function followAll(docs: readonly RichNode[]): { follow: number; compare: number; words: number } {
  const reader = new PageReader()
  const gone = new GoneWords(reader)
  let before: { text: PageText; runs: Runs } | null = null
  const start = performance.now()
  for (const [v, doc] of docs.entries()) {
    const text = reader.read(doc)
    const credited = followAuthors(before, text, gone, `v${v}`)
    gone.add(credited.gone)
    before = { text, runs: credited.runs }
  }
  const follow = performance.now() - start
  const standing = [...standingWords(before!.text, before!.runs).values()].reduce((a, b) => a + b, 0)
  if (standing !== wordsIn(before!.text.tokens)) throw new Error('authorship does not sum to the whole')
  const again = new PageReader()
  const [a, b] = [again.read(docs[0]!), again.read(docs.at(-1)!)]
  const from = performance.now()
  changedText(a, b, comparePages(a, b))
  return { follow, compare: performance.now() - from, words: standing }
}

/** So many terms, and a text of so many characters in which a good part of the words are terms. */
export function linking(
  terms: number,
  characters: number,
): { build: () => TermFinder; link: (finder: TermFinder) => number; size: number } {
  const random = seededRandom(terms)
  const known = Array.from({ length: terms }, (_, i) => ({
    id: `t${i}`,
    forms: [`harbour${i}`, `old harbour${i} of the sea`],
    whole: i % 2 === 0,
  }))
  const parts: string[] = []
  const PLAIN = ['the', 'stone', 'of', 'a', 'tide', 'and']
  for (let size = 0; size < characters;) {
    const word = () =>
      random() < 0.3
        ? `harbour${Math.floor(random() * terms * 2)}`
        : PLAIN[Math.floor(random() * PLAIN.length)]!
    const text = `<p>${Array.from({ length: 60 }, word).join(' ')}</p>`
    parts.push(text)
    size += text.length
  }
  const html = parts.join('')
  return {
    build: () => new TermFinder(known),
    link: finder => linkTerms(html, finder, id => `#${id}`).length,
    size: html.length,
  }
}

type Timings = { readonly compare: number; readonly shade: number }
/** What the page's own worker takes to compare the first with the last of some versions and to shade the last, per size of page. */
export async function measurePageWorker(
  browser: Browser,
  world: World,
  sizes: readonly number[],
): Promise<Timings[]> {
  const { id, groupId } = await world.page(world.city.id, 'Port Amara', 'The two moles')
  const context = await browser.newContext({ baseURL: world.address, viewport: { width: 1280, height: 800 } })
  await context.request.post('/api/session', {
    data: { email: email('ines'), password: 'harbour' },
    headers: { origin: world.address },
  })
  const page = await context.newPage()
  await page.goto(
    `/seminars/${world.seminar.id}/activities/${world.city.id}/history?group=${groupId}&page=${id}`,
  )
  const worker = page.workers()[0] ?? (await page.waitForEvent('worker'))
  const taken: Timings[] = []
  for (const words of sizes) {
    const docs = history(words, 300)
    const [a, b] = [docs[0]!, docs.at(-1)!]
    const tokens = new PageReader().read(b).tokens.length
    const ask = (question: object) =>
      worker.evaluate(async data => {
        // runs in the worker, whose scope is not that of this program
        const scope = self as unknown as {
          onmessage: (event: { data: unknown }) => void
          postMessage: (answer: unknown) => void
        }
        const post = scope.postMessage
        const start = performance.now()
        await new Promise(resolve => {
          scope.postMessage = resolve
          scope.onmessage({ data })
        })
        scope.postMessage = post
        return performance.now() - start
      }, question)
    taken.push({
      compare: await ask({ id: -1, what: 'compare', a, b }),
      shade: await ask({ id: -1, what: 'authors', doc: b, origins: [['v', tokens]] }),
    })
  }
  await context.close()
  return taken
}
