import { defineConfig } from '@playwright/test'

const results = process.env.JOVREL_TEST_RESULTS ?? 'test-results'

export default defineConfig({
  testDir: 'e2e',
  outputDir: `${results}/browser`,
  tsconfig: './tsconfig.house.json',
  fullyParallel: true,
  workers: 2,
  retries: 0,
  timeout: 300_000,
  expect: { timeout: 45_000 },
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [['list'], ['json']] : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-dev-shm-usage',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--no-first-run',
        '--use-fake-device-for-media-stream',
        '--use-fake-ui-for-media-stream',
      ],
    },
  },
})
