// Measures on this machine, as ratios within one run. Started by npm run bench.
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import { launchOptions } from '#scripts/chromium.mjs'
import { testWorld } from '#server/testing/world'
import { fillLargeTalk, measureFirstScreen, measureLive, measureScrolling } from './talk'
import { fillGradebook, ITEMS, measureDesk, measureGradebook, calculateAll, STUDENTS } from './grading'
import { deal, measureReviewDesk, calculateConsensus } from './peers'
import { followAll, history, linking, measurePageWorker } from './pages'
import { anchorsOf, measureReading } from './reading'
import { printOthers } from './others'
import { printScale } from './scale'
import { voicesOf } from './voices'
import { measureArchive, measureVoicesPage } from './archive'
import { groupPeople, measurePlanning } from './planning'
import { median, timed } from './timed'

const row = (what: string, figure: string) => console.log(`| ${what} | ${figure} |`)

const [small, large, few, many] = [
  deal(1000),
  deal(10_000),
  calculateConsensus(1000),
  calculateConsensus(10_000),
]
const percentile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) * share)]!
const world = await testWorld()
const browser = await chromium.launch(launchOptions())
try {
  console.log('| what | measured |\n| --- | --- |')
  const context = await browser.newContext({ baseURL: world.address, viewport: { width: 1280, height: 800 } })
  const signIn = (email: string) =>
    context.request.post('/api/session', {
      data: { email, password: 'harbour' },
      headers: { origin: world.address },
    })
  const scripts = new Map<string, number>()
  await signIn('liv@northmere.example')
  const student = await context.newPage()
  student.on('response', async response => {
    if (/\.js(\?|$)/.test(response.url()))
      scripts.set(response.url(), gzipSync(await response.body().catch(() => Buffer.alloc(0))).length)
  })
  await student.goto(`/seminars/${world.seminar.id}/week`)
  await student.waitForLoadState('load')
  const atLoad = await student.evaluate<string[]>(
    `[...document.scripts].map(s => s.src).filter(Boolean).concat([...document.querySelectorAll('link[rel=modulepreload]')].map(l => l.href))`,
  )
  await student.waitForLoadState('networkidle')
  const bytes = [...new Set(atLoad)].reduce((sum, url) => sum + (scripts.get(url) ?? 0), 0)
  row(
    'first load of My week: gzipped script bytes',
    `${(bytes / 1000).toFixed(0)} kB to show the page; ${([...scripts.values()].reduce((a, b) => a + b, 0) / 1000).toFixed(0)} kB with what is fetched ahead when idle`,
  )

  const grouping = groupPeople()
  const grouped = await timed(30, async () => {
    grouping.once()
  })
  row(
    `${grouping.people} people with ${grouping.rules} rules put into groups of five`,
    `${grouped.toFixed(1)} ms`,
  )
  const { rest, drag, typing } = await measurePlanning(browser, world)
  row(
    'term plan of 60 activities over 16 weeks: frame while dragging against a frame at rest, median (ratio)',
    `${(median(drag) / median(rest)).toFixed(2)} (${median(drag).toFixed(1)} ms against ${median(rest).toFixed(1)} ms; 95 % of frames within ${percentile(drag, 0.95).toFixed(1)} ms)`,
  )
  row(
    'composer: from a key to the preview that shows it, against a frame at rest (ratio)',
    `${(median(typing) / median(rest)).toFixed(2)} (${median(typing).toFixed(1)} ms)`,
  )

  await fillLargeTalk(world)
  const { route, bare } = await measureFirstScreen(world)
  row(
    'talk of 5,000 posts by 300 people: its first screen from the data route against the bare SQL for the same rows (ratio)',
    `${(route / bare).toFixed(1)} (${route.toFixed(0)} ms against ${bare.toFixed(0)} ms)`,
  )
  const scroll = await measureScrolling(browser, world)
  row('the same: address typed → first post painted, cold', `${scroll.firstPost.toFixed(0)} ms`)
  row(
    'the same: frame while scrolling 27,000 px against a frame at rest, median (ratio)',
    `${(median(scroll.frames) / median(rest)).toFixed(2)} (${median(scroll.frames).toFixed(1)} ms; 95 % within ${percentile(scroll.frames, 0.95).toFixed(1)} ms); ${scroll.blank} of ${scroll.seen} frames showed a post without its words; ${scroll.rows} rows drawn`,
  )
  const live = await measureLive(world)
  row(
    'the same: posted → seen by 200 open readers through two processes',
    `median ${median(live.took).toFixed(0)} ms, 99 % within ${percentile(live.took, 0.99).toFixed(0)} ms`,
  )
  row('memory of the server processes for each open reader', `${live.perReader.toFixed(0)} kB`)
  const desk = await measureDesk(browser, world)
  row(
    'marking desk of 300 students with 40 contributions each: key press → next record painted, against fetching that record’s data alone (ratio of medians)',
    `${(median(desk.pressed) / median(desk.fetched)).toFixed(2)} (median ${median(desk.pressed).toFixed(0)} ms, 95 % within ${percentile(desk.pressed, 0.95).toFixed(0)} ms, against ${median(desk.fetched).toFixed(0)} ms)`,
  )
  const [dealt, dealt10] = [
    await timed(15, async () => {
      small()
    }),
    await timed(15, async () => {
      large()
    }),
  ]
  row(
    'reviews dealt out: 10,000 works with 3 readers each, groups of four kept apart, against 1,000 (ratio; ten times as many)',
    `${(dealt10 / dealt).toFixed(1)} (${dealt10.toFixed(0)} ms against ${dealt.toFixed(1)} ms)`,
  )
  const [agreed, agreed10] = [
    await timed(9, async () => {
      few()
    }),
    await timed(9, async () => {
      many()
    }),
  ]
  row(
    'consensus of four criteria over 10,000 works with 3 readers each, against 1,000 (ratio)',
    `${(agreed10 / agreed).toFixed(1)} (${agreed10.toFixed(0)} ms against ${agreed.toFixed(0)} ms)`,
  )
  const peers = await measureReviewDesk(browser, world)
  row(
    `review desk of ${peers.works} works with 3 readers each: key press → next author painted, against fetching one record’s data alone (ratio of medians)`,
    `${(median(peers.pressed) / median(peers.fetched)).toFixed(2)} (median ${median(peers.pressed).toFixed(0)} ms, 95 % within ${percentile(peers.pressed, 0.95).toFixed(0)} ms, against ${median(peers.fetched).toFixed(0)} ms)`,
  )
  const [short, long] = [followAll(history(2000, 300)), followAll(history(20_000, 300))]
  row(
    'authorship followed through 300 versions of a page of 20,000 words, against one of 2,000 (ratio; ten times as many)',
    `${(long.follow / short.follow).toFixed(1)} (${(long.follow / 1000).toFixed(2)} s against ${short.follow.toFixed(0)} ms; ${(long.follow / 300).toFixed(1)} ms a version)`,
  )
  const [, little, big] = await measurePageWorker(browser, world, [2000, 2000, 20_000]) // the first warms the worker up
  row(
    'the page’s worker: first and last of those 300 versions compared, 20,000 words against 2,000 (ratio)',
    `${(big!.compare / little!.compare).toFixed(1)} (${big!.compare.toFixed(0)} ms against ${little!.compare.toFixed(0)} ms)`,
  )
  row(
    'the same: every word of the last put under its writer (ratio)',
    `${(big!.shade / little!.shade).toFixed(1)} (${big!.shade.toFixed(0)} ms against ${little!.shade.toFixed(0)} ms)`,
  )
  const [one, tenth] = [linking(2000, 1_000_000), linking(2000, 100_000)]
  const finder = one.build()
  const [linked, linkedTenth] = [
    await timed(9, async () => {
      one.link(finder)
    }),
    await timed(9, async () => {
      tenth.link(finder)
    }),
  ]
  row(
    '2,000 terms made links in 1 MB of text in one pass, against 100 kB (ratio)',
    `${(linked / linkedTenth).toFixed(1)} (${linked.toFixed(0)} ms against ${linkedTenth.toFixed(0)} ms; the terms made ready once in ${(
      await timed(9, async () => {
        one.build()
      })
    ).toFixed(0)} ms)`,
  )
  const [ten, thirty] = [anchorsOf(300, 5000, 0.04), anchorsOf(30, 500, 0.04)]
  const [found, foundTenth] = [await timed(3, ten.once), await timed(3, thirty.once)]
  const { waited } = await ten.once()
  row(
    '5,000 notes found again in a text of 300 pages of which a word in 25 was changed, against 500 in 30 pages (ratio; ten times as many)',
    `${(found / foundTenth).toFixed(1)} (${(found / 1000).toFixed(2)} s against ${foundTenth.toFixed(0)} ms, in a thread; others waited ${waited.toFixed(0)} ms at most)`,
  )
  const margin = await measureReading(browser, world)
  const { shell, words, note } = margin.steps
  const after = (step: number) => `${(step - shell).toFixed(0)} ms`
  row(
    `paper of ${margin.paperPages} pages with ${margin.notes.toLocaleString('en')} notes: shell → words of the first page, → its notes, cold`,
    `${after(words)}, ${after(note)} (shell after ${shell.toFixed(0)} ms)`,
  )
  row(
    'the same: frame while scrolling 23,000 px against a frame at rest, median (ratio)',
    `${(median(margin.frames) / median(rest)).toFixed(2)} (${median(margin.frames).toFixed(1)} ms; 95 % within ${percentile(margin.frames, 0.95).toFixed(1)} ms); ${margin.blank} of ${margin.frames.length} frames had a page without its words; ${margin.pages} pages drawn at the end; ${margin.heap.toFixed(0)} MB of script memory`,
  )
  const [loud, quiet] = [voicesOf(100_000, 2000), voicesOf(10_000, 200)]
  const [measured, measuredTenth] = [
    await timed(3, async () => {
      loud.measure()
    }),
    await timed(3, async () => {
      quiet.measure()
    }),
  ]
  row(
    'voices of 2,000 people with 100,000 contributions measured, against a tenth of both (ratio)',
    `${(measured / measuredTenth).toFixed(1)} (${measured.toFixed(0)} ms against ${measuredTenth.toFixed(0)} ms)`,
  )
  row(
    'the same with rhythm, network, communities and who stands between others, in a thread',
    `${((await timed(1, loud.analyseInThread)) / 1000).toFixed(1)} s against ${((await timed(1, quiet.analyseInThread)) / 1000).toFixed(1)} s`,
  )
  const [seen, seenTenth] = [
    await measureVoicesPage(browser, 2000, 100_000),
    await measureVoicesPage(browser, 200, 10_000),
  ]
  row(
    'voices of 2,000 people with 100,000 contributions as a page: address typed → its sentence to be read, and → its charts in',
    `${(seen.read / 1000).toFixed(1)} s and ${(seen.charts / 1000).toFixed(1)} s; a tenth of both ${(seenTenth.read / 1000).toFixed(1)} s and ${(seenTenth.charts / 1000).toFixed(1)} s`,
  )
  const [whole, tenthOf] = [
    await measureArchive(2000, 100_000, true),
    await measureArchive(200, 10_000, false),
  ]
  row(
    'archive of a seminar of 2,000 people with 100,000 contributions, against a tenth of both (ratio)',
    `${(whole.took / tenthOf.took).toFixed(1)} (${(whole.took / 1000).toFixed(1)} s for ${whole.megabytes.toFixed(0)} MB, against ${(tenthOf.took / 1000).toFixed(1)} s)`,
  )
  row(
    'the same: how much the server’s memory grew while it went out',
    `${whole.grew.toFixed(0)} MB, against ${tenthOf.grew.toFixed(0)} MB for a tenth`,
  )
  row('the same: brought back into an empty installation', `${(whole.back! / 1000).toFixed(1)} s`)
  const book = await fillGradebook(world)
  const calculate = calculateAll()
  const calculated = await timed(15, async () => {
    calculate()
  })
  row(`${STUDENTS} students × ${ITEMS} items reckoned anew by the core`, `${calculated.toFixed(0)} ms`)
  const grades = await measureGradebook(browser, world, book)
  row('gradebook of that size: address typed → first cell painted, cold', `${grades.first.toFixed(0)} ms`)
  row(
    'the same: frame while scrolling 14,000 px against a frame at rest, median (ratio)',
    `${(median(grades.frames) / median(rest)).toFixed(2)} (${median(grades.frames).toFixed(1)} ms; 95 % within ${percentile(grades.frames, 0.95).toFixed(1)} ms); ${grades.blank} of ${grades.frames.length} frames had a blank place; ${grades.cells} cells drawn`,
  )
  await printOthers(row)
  await printScale(row)
} finally {
  await browser.close()
  await world.close()
}
