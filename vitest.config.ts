import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import autoImport from 'unimport/unplugin'
import { defineConfig } from 'vitest/config'
import { pace } from './server/testing/pace'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** Fonts and the like, which the build takes into the server's bundle: modules that name them can be loaded without. */
const rawFiles = {
  name: 'raw-files',
  resolveId: (id: string) => (id.startsWith('raw:') ? '\0raw-file' : null),
  load: (id: string) => (id === '\0raw-file' ? 'export default ""' : null),
}

const SEEDED = here('./scripts/seededCheck.ts')
/** Properties are tried with the same values in every run. Others are tried with `JOVREL_SEED=7 npm test -- core`. */
const seededCheck = {
  name: 'seeded-check',
  enforce: 'pre' as const,
  resolveId: (id: string, importer?: string) => (id === 'fast-check' && importer !== SEEDED ? SEEDED : null),
}

/** What replaces modules or sees them load anew has a registry of its own; the other files of a worker share one. */
const ALONE = [
  'app/**/*.test.ts',
  'scripts/**/*.test.ts',
  'server/kinds/newKind.test.ts',
  'server/api/endpoints.test.ts',
  'server/access/seal.test.ts',
  // the reader of papers replaces what is built in
  'server/kinds/reading/readWebPage.test.ts',
]

export default defineConfig({
  plugins: [
    rawFiles,
    seededCheck,
    vue(),
    // what Nuxt brings into the files of the app without an import
    autoImport.vite({ presets: ['vue'], include: [/\/app\//] }),
  ],
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
    projects: [
      { extends: true, test: { name: 'alone', include: ALONE } },
      {
        extends: true,
        test: {
          name: 'together',
          include: ['core/**/*.test.ts', 'shared/**/*.test.ts', 'server/**/*.test.ts'],
          exclude: ALONE,
          isolate: false,
          setupFiles: ['server/testing/builtIns.ts'],
        },
      },
    ],
    // limits follow the machine, see server/testing/pace.ts
    testTimeout: 180_000 * pace(),
    hookTimeout: 300_000 * pace(),
    maxWorkers: 2,
  },
})
