import { fileURLToPath } from 'node:url'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const aliases = { '#core': here('./core'), '#shared': here('./shared'), '#server': here('./server') }

interface Chunk {
  readonly type: string
  readonly imports?: readonly string[]
}
/** Files that run in a thread of their own (`new URL('./….ts', import.meta.url)`) become files of their own beside the server's. */
const threadFiles = new Set<string>() // found while the server is built
const threads = {
  name: 'threads',
  transform(
    this: { emitFile: (file: { type: 'chunk'; id: string; fileName: string }) => string },
    code: string,
    id: string,
  ) {
    if (!id.startsWith(aliases['#server'])) return null
    const changed = code.replace(
      /new URL\('\.\/(\w+Thread)\.ts', import\.meta\.url\)/g,
      (_, name: string) => {
        const fileName = `threads/${name}.mjs`
        const file = `${id.slice(0, id.lastIndexOf('/'))}/${name}.ts`
        threadFiles.add(file)
        this.emitFile({ type: 'chunk', id: file, fileName })
        return `new URL('./${fileName}', import.meta.url)`
      },
    )
    return changed === code ? null : { code: changed, map: null }
  },
  /** A thread that loaded the server would start a second one. */
  generateBundle(_: unknown, bundle: Record<string, Chunk>) {
    for (const name of Object.keys(bundle).filter(n => n.startsWith('threads/') && n.endsWith('.mjs'))) {
      const reached = new Set([name])
      for (const at of reached) bundle[at]?.imports?.forEach(i => reached.add(i))
      if ([...reached].some(r => r.includes('nitro')))
        throw new Error(
          `${name} would load the server: what both use belongs in core, or in a file of its own`,
        )
    }
  },
}
interface Modules {
  readonly getModuleInfo: (
    id: string,
  ) => { readonly importers: readonly string[]; readonly dynamicImporters: readonly string[] } | null
}
const isThread = (id: string) => threadFiles.has(id)
/** What threads share with the server stands apart from it. */
const chunkOf = (id: string, { getModuleInfo }: Modules) => {
  if (/[\\/]nitropack[\\/]/.test(id)) return 'nitro'
  if (isThread(id)) return undefined
  const above = new Set([id])
  for (const at of above) {
    if (isThread(at)) continue // what starts a thread does not load it
    const info = getModuleInfo(at)
    for (const importer of [...(info?.importers ?? []), ...(info?.dynamicImporters ?? [])])
      above.add(importer)
  }
  const roots = [...above].filter(at => isThread(at) || /[\\/]nitropack[\\/]/.test(at))
  return roots.some(isThread) && !roots.every(isThread) ? 'shared-with-threads' : undefined
}

/** Scripts that many pages use come in two files instead of some fifty, with all they need themselves: nothing goes round. */
const scripts = [
  { name: 'everywhere', minShareCount: 24, priority: 2 },
  { name: 'often', minShareCount: 10, priority: 1 },
]

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  ssr: true,
  // a build has a folder of its own to work in, so that types can be checked beside it
  ...(process.env.JOVREL_OUTPUT && { buildDir: here('./.data/nuxt') }),
  telemetry: false,
  // the server's code is built unminified: its traces are read without maps, which cost a fifth of the time to build
  sourcemap: { server: false, client: false },
  devtools: { enabled: false },
  modules: ['@pinia/nuxt', 'vuetify-nuxt-module'],
  alias: aliases,
  // Every import is written out: a reader sees where a thing lives, and the import rule can hold.
  components: { dirs: [] },
  css: [
    '@fontsource-variable/instrument-sans',
    '@fontsource-variable/literata',
    '@fontsource-variable/literata/wght-italic.css',
    '~/theme/tokens.css',
    '~/theme/base.css',
    '~/theme/controls.css',
    '~/theme/print.css',
  ],
  // styles are linked before what they are for: those put into the page missed some components, which jumped when theirs came
  features: { inlineStyles: false },
  // pages behind links are prefetched on interaction, not on sight: the navigation is on every page
  experimental: {
    defaults: { nuxtLink: { prefetchOn: { visibility: false, interaction: true } } },
    emitRouteChunkError: 'manual', // told by a plugin: loading the page anew without a connection would leave the application
  },
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
  vite: {
    $client: { build: { rolldownOptions: { output: { codeSplitting: { groups: scripts } } } } },
  },
  hooks: {
    // what shows every control is for who develops: no build has it
    'pages:extend': pages => {
      if (process.env.NODE_ENV === 'development') return
      const at = pages.findIndex(page => page.path === '/controls')
      if (at >= 0) pages.splice(at, 1)
    },
    // while one develops, changes reach the browser by one socket: the client's
    'vite:extendConfig': (config, { isServer }) => {
      if (isServer) Object.assign(config, { server: { ...config.server, ws: false } })
    },
  },
  nitro: {
    // threads are files of their own while one develops, too
    inlineDynamicImports: false,
    rollupConfig: { plugins: [threads], output: { manualChunks: chunkOf } },
    // a build stands in the project's folder and finds its packages there: tracing and copying them took half of its time
    // packages of many small files come in one, without what is not used of them: a server starts in half the time
    externals: {
      trace: false,
      inline: [
        'date-fns',
        '@date-fns/tz',
        'drizzle-orm',
        'zod',
        'uuid',
        'diff',
        'csv-parse',
        'csv-stringify',
      ],
    },
    compressPublicAssets: { gzip: true, brotli: false },
    // what papers need that name letters or types without bringing them along
    publicAssets: [
      { dir: here('./node_modules/pdfjs-dist/cmaps'), baseURL: '/paper/cmaps', maxAge: 86_400 },
      { dir: here('./node_modules/pdfjs-dist/standard_fonts'), baseURL: '/paper/fonts', maxAge: 86_400 },
    ],
    ...(process.env.JOVREL_OUTPUT && { output: { dir: process.env.JOVREL_OUTPUT } }),
    // requests are typed by the endpoint book: types of $fetch would draw the whole server into the interface's check
    hooks: {
      'types:extend': types => {
        types.routes = {}
      },
    },
    // names for tests and commands alone, known to the type checker; the server's own code must not use them (lint)
    typescript: {
      tsConfig: { compilerOptions: { paths: { '#demo/*': ['../demo/*'], '#scripts/*': ['../scripts/*'] } } },
    },
  },
  typescript: {
    strict: true,
    tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } },
  },
})
