// npm run screenshots: one picture of each main view, from the demo seminar on Wednesday of week 6, into docs/screenshots.
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { ensureChromium, launchOptions } from './chromium.mjs'
import { freePort } from './cluster.mjs'
import { withDemoDatabase } from './demoDatabase.mjs'
import { startServer } from './serve.mjs'
import { ensureBuild, ensurePackages, home } from './system.mjs'

await ensurePackages()
ensureChromium()
const NOW = '2026-10-14T08:20:00Z'
await withDemoDatabase('pictures', async url => {
  const server = await startServer(
    await ensureBuild(),
    { PORT: await freePort(), DATABASE_URL: url, JOVREL_DEMO: '1', JOVREL_NOW: NOW },
    { quiet: true },
  )
  try {
    await takeAll(server.address)
  } finally {
    await server.stop()
  }
})

async function takeAll(address) {
  const browser = await chromium.launch(launchOptions())
  const context = await browser.newContext({
    timezoneId: 'Europe/Amsterdam', // as the seminar's own people see it
    baseURL: address,
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
  })
  const page = await context.newPage()
  const signIn = async who =>
    (
      await context.request.post('/api/session', {
        data: { email: `${who}@northmere.example`, password: 'harbour' },
        headers: { origin: address },
      })
    ).json()
  const picture = async (name, path, drawn = 'body') => {
    await page.goto(path)
    // a page that goes on listening is never idle: it is ready once the application has taken it over and has drawn
    await page.evaluate(
      'new Promise((done) => { const look = () => document.querySelector("#__nuxt").__vue_app__?.$nuxt?.isHydrating === false ? setTimeout(done, 1200) : requestAnimationFrame(look); look() })',
    )
    await page.evaluate(() => document.fonts.ready)
    await page.locator(drawn).first().waitFor() // a paper draws its page after the rest
    await page.screenshot({ path: join(home, 'docs/screenshots', `${name}.png`) })
  }
  const { session } = await signIn('ines')
  const seminar = `/seminars/${session.seminars[0].id}`
  const plan = await (await context.request.get(`/api${seminar}/plan`)).json()
  const activity = words => `${seminar}/activities/${plan.activities.find(a => a.title.includes(words)).id}`
  await picture('term-plan', `${seminar}/plan`)
  await picture('composer', `${activity('Letters home')}/plan`)
  await picture('people-and-groups', `${seminar}/groups`)
  const library = await (await context.request.get(`/api${seminar}/library`)).json()
  await picture(
    'rubric-editor',
    `${seminar}/rubrics/${library.rubrics.find(r => r.rubric.title === 'Seminar contribution').rubric.id}`,
  )
  await picture('marking-desk', `${activity('breakwater')}/desk`)
  await picture('review-desk', `${activity('Source reports')}/peers`)
  await picture(
    'voices',
    `${seminar}/voices?activity=${plan.activities.find(a => a.title.includes('breakwater')).id}`,
  )
  const { people } = await (await context.request.get(`/api${seminar}/people`)).json()
  await picture('student', `${seminar}/voices/${people.find(p => p.name === 'Wanjiru Westergaard').id}`)
  await picture('presence', `${seminar}/presence`)
  await picture('closing-questions', `${activity('breakwater')}/closing`)
  await picture('gradebook', `${seminar}/gradebook`)
  const groups = await (await context.request.get(`/api${seminar}/groups`)).json()
  const group = groups.plans.find(p => p.title === 'City pages').groups.find(g => g.title === 'Port Amara').id
  const city = await (
    await context.request.get(`/api${activity('City pages').replace(seminar, '')}/wiki?group=${group}`)
  ).json()
  const moles = `group=${group}&page=${city.pages.find(p => p.title === 'The two moles').id}`
  await signIn('malin')
  await picture('wiki', `${activity('City pages')}?${moles}`)
  await signIn('petra')
  const own = await (
    await context.request.get(`/api${activity('Source reports').replace(seminar, '')}/reviews`)
  ).json()
  await picture(
    'reviewing',
    `${activity('Source reports')}/reviews/${own.given.find(g => g.state !== 'in').id}`,
  )
  await signIn('liv')
  await picture('discussion', activity('dredge'))
  await picture('reading', activity('Reading the toll roll'), '.over .letter')
  await picture('lexicon', activity('Terms of the sea'))
  await picture('journal', activity('notebook'))
  await picture('my-week', `${seminar}/week`)
  await picture('letter', `${activity('breakwater')}/letter`)
  await browser.close()
}
