// npm run bench: measures a built Jovrel on a database of its own. Figures are for comparing within one run.
// npm run bench -- others: only how long one person waits for another. npm run bench -- scale: only how pages open with
// twenty times the contributions. npm run bench -- talk: only the first screen of a long talk. npm run bench -- reading: only the
// first page of a long paper.
import { ensureChromium } from './chromium.mjs'
import { withDemoDatabase } from './demoDatabase.mjs'
import { ensureBuild, ensurePackages, runTypeScript } from './system.mjs'

await ensurePackages()
ensureChromium()
const PARTS = {
  others: 'bench/runOthers.ts',
  scale: 'bench/runScale.ts',
  talk: 'bench/runTalk.ts',
  reading: 'bench/runReading.ts',
}
await withDemoDatabase('bench', async template =>
  runTypeScript(PARTS[process.argv[2]] ?? 'bench/run.ts', [], {
    JOVREL_TEST_DATABASE: template,
    JOVREL_TEST_BUILD: await ensureBuild(),
  }),
)
