// npm run typecheck: types of everything, in three parts. A whole test run has the same parts (testParts.mjs).
import { spawnSync } from 'node:child_process'
import { home } from './system.mjs'

/** Two compilers: one knows the templates of components, the other is faster. Each part has its name, its script and its project. */
export const TYPE_CHECKS = [
  ['types of the interface', 'vue-tsc/bin/vue-tsc.js', 'tsconfig.app.json'],
  ['types of the rest', 'typescript-native/bin/tsc', 'tsconfig.server.json'],
  ['types of the configuration', 'typescript-native/bin/tsc', '.nuxt/tsconfig.node.json'],
].map(([name, script, project]) => ({
  name,
  args: [`node_modules/${script}`, '--noEmit', '-p', project],
}))

if (import.meta.filename === process.argv[1]) {
  const failed = TYPE_CHECKS.filter(
    ({ args }) => spawnSync(process.execPath, args, { cwd: home, stdio: 'inherit' }).status !== 0,
  )
  process.exitCode = failed.length > 0 ? 1 : 0
}
