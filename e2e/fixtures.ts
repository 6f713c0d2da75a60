import { test as base, expect, type BrowserContext, type Page } from '@playwright/test'
import { testDatabase } from '#server/testing/database'
import { Client, testServer } from '#server/testing/server'
import { email, testWorld, type World } from '#server/testing/world'

interface Fixtures {
  readonly world: World
  /** A page with somebody signed in. Whatever it says on the console as an error fails the test. */
  readonly as: (
    who: string,
    options?: { width?: number; height?: number; dark?: boolean; touch?: boolean },
  ) => Promise<Page>
  /** Sentences a page may rightly put on the console: refused requests the test provokes. */
  readonly expectedErrors: RegExp[]
}

/** Every test has a database and a server of its own: none depends on another, or on their order. */
export const test = base.extend<Fixtures>({
  world: async ({}, use) => {
    const world = await testWorld()
    await use(world)
    await world.close()
  },
  expectedErrors: async ({}, use) => {
    await use([])
  },
  // it asks for the world so that the server outlives the page: what a page fetches ahead must not be refused at the end
  page: async ({ page, world, expectedErrors }, use) => {
    const heard = listen(page)
    await use(page)
    expect(
      heard.filter(text => !expectedErrors.some(e => e.test(text))),
      `said by a page of ${world.address}`,
    ).toEqual([])
  },
  as: async ({ browser, world, expectedErrors }, use) => {
    const contexts: BrowserContext[] = []
    const pages: string[][] = []
    await use(async (who, { width = 1280, height = 800, dark = false, touch = false } = {}) => {
      const context = await browser.newContext({
        baseURL: world.address,
        viewport: { width, height },
        colorScheme: dark ? 'dark' : 'light',
        hasTouch: touch,
        isMobile: touch,
      })
      contexts.push(context)
      const page = await context.newPage()
      pages.push(listen(page))
      await signIn(context, world.address, who)
      return page
    })
    for (const context of contexts) await context.close()
    expect(pages.flat().filter(text => !expectedErrors.some(e => e.test(text)))).toEqual([])
  },
})

/** A Jovrel with nobody in it. */
export const bare = base.extend<{
  readonly empty: { readonly address: string; readonly page: () => Promise<Page> }
}>({
  empty: async ({ browser }, use) => {
    const database = await testDatabase({ empty: true })
    const server = await testServer(database.url, { JOVREL_DEMO: '' })
    const context = await browser.newContext({
      baseURL: server.address,
      viewport: { width: 1280, height: 800 },
      timezoneId: 'Europe/Amsterdam',
    })
    const heard: string[][] = []
    await use({
      address: server.address,
      page: async () => {
        const page = await context.newPage()
        heard.push(listen(page))
        return page
      },
    })
    await context.close()
    await server.stop()
    await database.drop()
    // 422: what the test has refused; 409: a save that crossed another of the same person, which is joined and sent again
    expect(heard.flat().filter(text => !/422|409/.test(text))).toEqual([])
  },
})

/** What a page says on its console as an error, and what it throws. */
function listen(page: Page): string[] {
  const heard: string[] = []
  page.on('console', message => {
    if (message.type() === 'error') heard.push(`console: ${message.text()}`)
  })
  page.on('pageerror', error => heard.push(`page: ${error.message}`))
  return heard
}
export { expect }

// what sessions are listed under
const AGENT =
  'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36'
/** Signs somebody of the demo in, in a browser; whoever was signed in there is not any more. */
export async function signIn(context: BrowserContext, address: string, who: string): Promise<void> {
  const { cookies } = await new Client(address).signIn(email(who), 'harbour', { 'user-agent': AGENT })
  const [name, value] = cookies.split('=')
  await context.addCookies([{ name: name!, value: value!, url: address }])
}

const CUT = 'test:cut'
/**
 * Lets requests fail whose address ends so, as if the line were cut, until the function it answers is called. In the page
 * itself: what a page sends as it is left passes by what is set from outside.
 */
export async function cutOff(page: Page, ending: string): Promise<() => Promise<void>> {
  await page.context().addInitScript(
    ([key, end]) => {
      const real = window.fetch
      window.fetch = (input, init) => {
        const address = input instanceof Request ? input.url : String(input)
        const isCut = localStorage.getItem(key!) !== null && address.endsWith(end!)
        return isCut ? Promise.reject(new TypeError('The line is cut.')) : real(input, init)
      }
      if (localStorage.getItem(`${key!}:over`) === null) localStorage.setItem(key!, 'yes')
    },
    [CUT, ending],
  )
  return () =>
    page.evaluate(key => {
      localStorage.setItem(`${key}:over`, 'yes')
      localStorage.removeItem(key)
    }, CUT)
}

/** Opens a page and waits until it answers to keys and clicks. */
export async function open(page: Page, path: string) {
  await page.goto(path)
  // a page that goes on listening is never idle: it is ready once the application has taken it over
  await page.waitForFunction(
    () =>
      (document.querySelector('#__nuxt') as { __vue_app__?: { $nuxt?: { isHydrating?: boolean } } } | null)
        ?.__vue_app__?.$nuxt?.isHydrating === false,
  )
}

/** Waits until the page has drawn what was done: by then its scripts have been told of it, of a selection, too. */
export const drawn = (page: Page) =>
  page.evaluate(
    () => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done)))),
  )

/** Chooses words on the page as a pointer would, within one element. */
export async function chooseWords(page: Page, selector: string, words: string) {
  await page.evaluate(
    ([where, text]) => {
      for (const element of document.querySelectorAll(where!)) {
        const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT)
        for (let node = walker.nextNode(); node; node = walker.nextNode()) {
          const at = node.textContent!.indexOf(text!)
          if (at < 0) continue
          const range = document.createRange()
          range.setStart(node, at)
          range.setEnd(node, at + text!.length)
          getSelection()!.removeAllRanges()
          getSelection()!.addRange(range)
          element.dispatchEvent(new MouseEvent('mouseup', { bubbles: true }))
          return
        }
      }
      throw new Error(`"${text}" is not in ${where}`)
    },
    [selector, words],
  )
}

export const sentence = (n: number) =>
  Array.from({ length: n }, (_, i) => ['silt', 'stone', 'tide', 'toll', 'quay'][i % 5]).join(' ')
