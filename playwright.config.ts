import { defineConfig } from '@playwright/test'
import { launchOptions } from './scripts/chromium.mjs'
import { pace } from './server/testing/pace'

const results = process.env.JOVREL_TEST_RESULTS ?? 'test-results'
const browser = launchOptions()

export default defineConfig({
  testDir: 'e2e',
  outputDir: `${results}/browser`,
  tsconfig: './tsconfig.paths.json',
  fullyParallel: true,
  workers: 2,
  retries: 0,
  // limits follow the machine, see server/testing/pace.ts
  timeout: 300_000 * pace(),
  expect: { timeout: 45_000 * pace() },
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [['list'], ['json']] : [['list']],
  use: {
    actionTimeout: 60_000 * pace(),
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // what moves is not at its place yet when it is clicked
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      ...browser,
      args: [...browser.args, '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
    },
  },
})
