import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'
import { pace } from './server/testing/pace'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  resolve: {
    alias: {
      '~': here('./app'),
      '#core': here('./core'),
      '#shared': here('./shared'),
      '#server': here('./server'),
      '#demo': here('./demo'),
      '#scripts': here('./scripts'),
    },
  },
  test: {
    include: [
      'core/**/*.test.ts',
      'shared/**/*.test.ts',
      'app/**/*.test.ts',
      'server/**/*.test.ts',
      'scripts/**/*.test.ts',
    ],
    // limits follow the machine, see server/testing/pace.ts
    testTimeout: 180_000 * pace(),
    hookTimeout: 300_000 * pace(),
    maxWorkers: 2,
  },
})
