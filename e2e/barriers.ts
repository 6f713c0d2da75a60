import axe from 'axe-core'
import type { Page } from '@playwright/test'

declare global {
  interface Window {
    axe: typeof axe // in pages that are looked at here
  }
}

const CONTRAST = ['color-contrast']
const STANDARDS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']
/** Runs in the page: what the rules find wrong with what is shown. */
const violationsOf = async ([only, without]: readonly [readonly string[], readonly string[]]) => {
  const rules = Object.fromEntries(without.map(rule => [rule, { enabled: false }]))
  const options = { runOnly: [...only], rules, resultTypes: ['violations' as const], selectors: false }
  const { violations } = await window.axe.run(document, options)
  return violations.flatMap(({ id, nodes }) => nodes.slice(0, 3).map(n => `${id}: ${n.html.slice(0, 200)}`))
}

/**
 * What WCAG 2.2 A and AA and good practice find wrong with what is shown; in the dark only colours are others.
 *
 * @param colours whether contrasts are measured: most of the work, and the same for every role
 */
export async function barriersOf(page: Page, { colours = true } = {}): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
  await page.emulateMedia({ colorScheme: 'light' })
  const byLight = await page.evaluate(violationsOf, [STANDARDS, colours ? [] : CONTRAST] as const)
  if (!colours) return byLight
  await page.emulateMedia({ colorScheme: 'dark' })
  const inDark = await page.evaluate(violationsOf, [CONTRAST, []] as const)
  return [...byLight, ...inDark.map(found => `in the dark, ${found}`)]
}
