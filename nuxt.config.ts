import { fileURLToPath } from 'node:url'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const floors = { '#core': here('./core'), '#shared': here('./shared'), '#server': here('./server') }

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  ssr: true,
  telemetry: false,
  devtools: { enabled: false },
  modules: ['@pinia/nuxt', 'vuetify-nuxt-module'],
  alias: floors,
  // Every import is written out: a reader sees where a thing lives, and the import rule can hold.
  components: { dirs: [] },
  css: [
    '@fontsource-variable/instrument-sans',
    '@fontsource-variable/literata',
    '@fontsource-variable/literata/wght-italic.css',
    '~/theme/tokens.css',
    '~/theme/base.css',
    '~/theme/controls.css',
  ],
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      titleTemplate: '%s · Jovrel',
      title: 'Jovrel',
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }],
    },
  },
  vuetify: {
    moduleOptions: { disableVuetifyStyles: false, ssrClientHints: { reloadOnFirstRequest: false } },
    vuetifyOptions: './vuetify.config.ts',
  },
  nitro: {
    // what papers need that name letters or types without bringing them along
    publicAssets: [{ dir: here('./node_modules/pdfjs-dist/cmaps'), baseURL: '/paper/cmaps', maxAge: 86_400 }, { dir: here('./node_modules/pdfjs-dist/standard_fonts'), baseURL: '/paper/fonts', maxAge: 86_400 }],
    ...(process.env.JOVREL_OUTPUT && { output: { dir: process.env.JOVREL_OUTPUT } }),
  },
  typescript: {
    strict: true,
    tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } },
  },
})
