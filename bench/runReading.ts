// npm run bench -- reading: how long the first page of a long paper with many notes takes.
import { chromium } from '@playwright/test'
import { launchOptions } from '#scripts/chromium.mjs'
import { testWorld } from '#server/testing/world'
import { measureReading } from './reading'

const TIMES = 3
const browser = await chromium.launch(launchOptions())
console.log('| step, in milliseconds since the address was asked for | measured |\n| --- | --- |')
for (let i = 0; i < TIMES; i++) {
  const world = await testWorld({ own: true })
  try {
    const { steps } = await measureReading(browser, world)
    const said = Object.entries(steps).map(([step, at]) => `${step} ${at.toFixed(0)}`)
    console.log(`| ${said.join(', ')} | ${(steps.note - steps.shell).toFixed(0)} ms after the shell |`)
  } finally {
    await world.close()
  }
}
await browser.close()
