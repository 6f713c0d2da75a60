import puppeteer, { type EvaluateFunc, type Page } from 'puppeteer-core'
import { pace } from '#server/testing/pace'
import { until } from '#server/testing/until'
import { email, type World } from '#server/testing/world'
import { chooseInPage } from './chooseWords'
import { expect, test } from './fixtures'
import { ODD_PASSAGES, passageOf, setOddText } from './oddText'

/** Waits until something holds in the page. It is asked from outside: a page's own policy may refuse to evaluate text. */
const holds = <Args extends unknown[]>(
  page: Page,
  what: string,
  condition: EvaluateFunc<Args>,
  ...args: Args
) => until(what, async () => Boolean(await page.evaluate(condition, ...args)))

const ready = (page: Page) =>
  holds(
    page,
    'the page runs',
    () =>
      (document.querySelector('#__nuxt') as { __vue_app__?: { $nuxt?: { isHydrating?: boolean } } } | null)
        ?.__vue_app__?.$nuxt?.isHydrating === false,
  )
/** Writes a note on words of a text. */
async function write(page: Page, from: string, to: string, said: string) {
  await page.evaluate(chooseInPage, [from, to] as const)
  await page.waitForSelector('.slip')
  await page.keyboard.press('n')
  await (await page.waitForSelector('.slip [contenteditable=true]'))!.focus()
  await page.keyboard.type(said)
  await page.keyboard.down('Control')
  await page.keyboard.press('Enter')
  await page.keyboard.up('Control')
  await holds(
    page,
    `the note “${said}”`,
    words => [...document.querySelectorAll('article.note')].some(n => n.textContent!.includes(words)),
    said,
  )
}

/** Works on a page of the other engine, with somebody signed in; whatever the page throws fails the test. */
async function inFirefox(world: World, work: (page: Page) => Promise<void>) {
  // The window has the wanted size and no viewport is emulated: emulation asks for commands that not every Firefox knows
  const browser = await puppeteer.launch({
    browser: 'firefox',
    executablePath: '/usr/bin/firefox-esr',
    headless: true,
    defaultViewport: null,
    args: ['--width=1280', '--height=900'],
  })
  try {
    const heard: string[] = []
    const page = await browser.newPage()
    page.setDefaultTimeout(60_000 * pace())
    // a library asks whether it may evaluate, and lives with the answer; this engine tells of it, and of streams that are open
    // when a page is left
    page.on('pageerror', error => {
      const isUsual = /blocked a JavaScript eval|\/live was interrupted while the page was loading/.test(
        String(error),
      )
      if (!isUsual) heard.push(String(error))
    })
    // the window's own bars take part of its height
    expect(await page.evaluate(() => innerWidth)).toBe(1280)
    await page.goto(`${world.address}/sign-in`)
    expect(
      await page.evaluate(
        async who =>
          (
            await fetch('/api/session', {
              method: 'POST',
              headers: { 'content-type': 'application/json' },
              body: JSON.stringify({ email: who, password: 'harbour' }),
            })
          ).ok,
        email('liv'),
      ),
    ).toBe(true)
    await work(page)
    expect(heard).toEqual([])
  } finally {
    await browser.close()
  }
}
async function go(page: Page, world: World, activityId: string) {
  await page.goto(`${world.address}/seminars/${world.seminar.id}/activities/${activityId}`)
  await ready(page)
}

test('in another engine the same words have the same places in an article of odd letters', async ({
  world,
}) => {
  await setOddText(world)
  await inFirefox(world, async page => {
    await go(page, world, world.calm.id)
    await page.waitForSelector('.article p')
    for (const p of ODD_PASSAGES) {
      await write(page, p.from, p.to, p.said)
      expect(await passageOf(world, p.said)).toBe(p.exact)
    }
    await page.reload()
    await ready(page)
    await holds(page, 'three notes', () => document.querySelectorAll('.over .letter').length === 3)
  })
})

test('in another engine the same words have the same places in a paper at two sizes', async ({ world }) => {
  await inFirefox(world, async page => {
    await go(page, world, world.roll.id)
    await holds(
      page,
      'the paper and its notes',
      () =>
        [...document.querySelectorAll('.words span')].some(s =>
          s.textContent!.includes('A toll is usually taken'),
        ) && document.querySelector('.over .letter') !== null,
    )
    await write(page, 'A toll is usually taken', 'goods', 'Here, too.')
    expect(await passageOf(world, 'Here, too.')).toBe('A toll is usually taken on goods')
    // its line stands under these words, larger, too
    const under = () =>
      holds(page, 'a line under the words', () => {
        const words = [...document.querySelectorAll('.words span')]
          .find(s => s.textContent!.startsWith('A toll is usually taken'))
          ?.getBoundingClientRect()
        return (
          words &&
          [...document.querySelectorAll('.under.own')].some(l => {
            const r = l.getBoundingClientRect()
            return Math.abs(r.top - words.bottom) < 8 && Math.abs(r.left - words.left) < 6
          })
        )
      })
    await under()
    const before = await page.$eval('.row[data-row="3"] canvas', c => c.getBoundingClientRect().width)
    await page.click('button[aria-label="Larger"]')
    await holds(
      page,
      'a larger page',
      w => document.querySelector('.row[data-row="3"] canvas')!.getBoundingClientRect().width > w * 1.1,
      before,
    )
    await under()
  })
})
