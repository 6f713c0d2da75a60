import type { Page } from '@playwright/test'
import { expect } from './fixtures'

/** In a page: chooses words as a pointer would, from some to others, on whichever lines and pages they stand. */
export function chooseInPage([from, to]: readonly [string, string]): void {
  const find = (text: string) => {
    for (const root of document.querySelectorAll('[data-words]')) {
      const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT)
      for (let node = walker.nextNode(); node; node = walker.nextNode()) {
        const at = node.textContent!.indexOf(text)
        if (at >= 0 && !node.parentElement!.closest('[data-not-text], .over')) return { node, at }
      }
    }
    throw new Error(`"${text}" is not in the text`)
  }
  const [start, end] = [find(from), find(to)]
  const range = document.createRange()
  range.setStart(start.node, start.at)
  range.setEnd(end.node, end.at + to.length)
  getSelection()!.removeAllRanges()
  getSelection()!.addRange(range)
  start.node.parentElement!.dispatchEvent(new MouseEvent('mouseup', { bubbles: true }))
}

export async function choose(page: Page, from: string, to = from) {
  await expect(page.locator('.row').getByText(from).first()).toBeAttached()
  await page.evaluate(chooseInPage, [from, to] as const)
}
