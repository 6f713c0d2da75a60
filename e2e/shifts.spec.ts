import type { Page } from '@playwright/test'
import { expect, open, test } from './fixtures'

declare global {
  interface Window {
    shifted: number // in pages that are looked at here
  }
}
const MOST = 0.05 // half of what counts as a good page (Cumulative Layout Shift)

/** Adds up how far what is seen moves by itself while a page fills. */
async function watchShifts(page: Page) {
  await page.addInitScript(() => {
    window.shifted = 0
    new PerformanceObserver(list => {
      for (const entry of list.getEntries() as Array<
        PerformanceEntry & { value: number; hadRecentInput: boolean }
      >)
        if (!entry.hadRecentInput) window.shifted += entry.value
    }).observe({ type: 'layout-shift', buffered: true })
  })
}
const text = (page: Page) => page.locator('main').first().innerText()
/** A page is full once what stands in it stays as it is. */
async function filled(page: Page) {
  let before = ''
  await expect(async () => {
    const now = await text(page)
    const isSettled = now === before
    before = now
    expect(isSettled).toBe(true)
  }).toPass({ intervals: [150] })
}

test('nothing jumps while a view fills, on a desk and on a phone', async ({ as, world }) => {
  const seminar = `/seminars/${world.seminar.id}`
  const all = await world.db.query.activities.findMany()
  const kind = (k: string) =>
    `${seminar}/activities/${all.find(a => a.kind === k && a.state === 'published')!.id}`
  const kinds = ['discussion', 'journal', 'blog', 'wiki', 'reading', 'review', 'lexicon', 'exitNote'].map(
    kind,
  )
  const ofStaff = [
    ...['plan', 'voices', 'gradebook', 'people', 'settings', 'library'].map(view => `${seminar}/${view}`),
    `${seminar}/activities/${world.breakwater.id}/desk`,
    `${seminar}/activities/${world.essays.id}/plan`,
    `${seminar}/activities/${world.reports.id}/peers`,
  ]
  const ofStudents = [...['week', 'plan', 'grades', 'feedback'].map(view => `${seminar}/${view}`), ...kinds]
  for (const [who, views] of [
    ['ines', ofStaff],
    ['liv', ofStudents],
  ] as const) {
    const page = await as(who)
    await watchShifts(page)
    for (const width of [1280, 390]) {
      await page.setViewportSize({ width, height: 800 })
      for (const view of views) {
        await open(page, view)
        await filled(page)
        const shifted = await page.evaluate(() => window.shifted)
        expect(shifted, `${who} at ${width}: ${view.replace(seminar, '')}`).toBeLessThan(MOST)
      }
    }
  }
})
