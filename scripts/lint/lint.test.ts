import { join } from 'node:path'
import { ESLint } from 'eslint'
import { describe, expect, it } from 'vitest'

const home = join(import.meta.dirname, '../..')
const eslint = new ESLint({ cwd: home })
const rulesBroken = async (file: string, code: string) => {
  const [result] = await eslint.lintText(code, { filePath: join(home, file) })
  return [...new Set(result!.messages.map(m => m.ruleId ?? m.message))]
}
const page = (script: string, template = '<p>{{ a }}</p>') =>
  `<script setup lang="ts">\n${script}\n</script>\n\n<template>\n  ${template}\n</template>\n`

describe('lint', () => {
  it('lets ordinary code pass', async () => {
    expect(await rulesBroken('core/one.ts', 'export const a = 1\n')).toEqual([])
  })

  it.each([
    [
      'a line of two statements',
      'core/one.ts',
      'export const a = 1; export const b = 2\n',
      'max-statements-per-line',
    ],
    [
      'a file of 500 lines',
      'core/one.ts',
      'export const a = {\n' + '  b: 1,\n'.repeat(500) + '}\n',
      'max-lines',
    ],
    [
      'an import that climbs',
      'server/a/b/c.ts',
      "export { a } from '../../../core/a'\n",
      'no-restricted-imports',
    ],
    [
      'a cast without a reason',
      'core/one.ts',
      'export const a = (b: string) => b as never\n',
      'jovrel/casts-with-reason',
    ],
    [
      'a cast by way of unknown',
      'core/one.ts',
      'export const a = (b: string) => b as unknown as number\n',
      'jovrel/casts-with-reason',
    ],
    [
      'a bare button',
      'app/components/one.vue',
      page('const a = 1', '<button type="button">{{ a }}</button>'),
      'vue/no-restricted-html-elements',
    ],
    [
      'core that knows the server',
      'core/one.ts',
      "export { a } from '#server/clock'\n",
      'no-restricted-imports',
    ],
    [
      'an area that uses a later one',
      'server/services/planning/one.ts',
      "export { storePoints } from '#server/services/marking'\n",
      'no-restricted-imports',
    ],
    [
      'an area that goes round another’s door',
      'server/services/marking/one.ts',
      "export { loadPlan } from '#server/services/planning/activityPlan'\n",
      'no-restricted-imports',
    ],
    [
      'a kind compared outside its folder',
      'server/services/planning/one.ts',
      "export const a = (activity: { kind: string }) => activity.kind === 'wiki'\n",
      'jovrel/kinds-in-their-folders',
    ],
    [
      'a kind asked of the database outside its folder',
      'server/services/planning/one.ts',
      "export const a = (eq: never, activities: never) => eq(activities.kind, 'wiki')\n",
      'jovrel/kinds-in-their-folders',
    ],
    [
      'kinds listed outside their folders',
      'app/composables/one.ts',
      "export const a = (body: { kind: string }) => ['blog', 'journal'].includes(body.kind)\n",
      'jovrel/kinds-in-their-folders',
    ],
    [
      'a kind compared in a template',
      'app/components/planning/One.vue',
      page('defineProps<{ kind: string }>()', '<p v-if="kind === \'wiki\'">a</p>'),
      'jovrel/kinds-in-their-folders',
    ],
    [
      'contributing that knows a kind',
      'server/services/contributing/one.ts',
      "export { requireTerm } from '#server/kinds/lexicon/requireTerm'\n",
      'no-restricted-imports',
    ],
    [
      'an autosave that knows a framework',
      'app/autosave/one.ts',
      "export { ref } from 'vue'\n",
      'no-restricted-imports',
    ],
    ['core that knows a framework', 'core/one.ts', "export { ref } from 'vue'\n", 'no-restricted-imports'],
    [
      'shared that knows the app',
      'shared/one.ts',
      "export { a } from '~/stores/desk'\n",
      'no-restricted-imports',
    ],
    [
      'an app that knows the server',
      'app/one.ts',
      "export { a } from '#server/clock'\n",
      'no-restricted-imports',
    ],
    [
      'a route that reaches into the database',
      'server/api/one.get.ts',
      "export { openDatabase } from '#server/database/client'\n",
      'no-restricted-imports',
    ],
    [
      'a conditional inside another',
      'core/one.ts',
      'export const a = (b: number) => (b > 1 ? 1 : b > 0 ? 2 : 3)\n',
      'jovrel/no-nested-conditional',
    ],
    [
      'a conditional inside another in a template',
      'app/components/One.vue',
      page('defineProps<{ a: number }>()', '<p>{{ a > 1 ? 1 : a > 0 ? 2 : 3 }}</p>'),
      'jovrel/no-nested-conditional',
    ],
    [
      'a cast without a reason in a template',
      'app/components/One.vue',
      page('defineProps<{ a: number }>()', '<p :title="a as never">{{ a }}</p>'),
      'jovrel/casts-with-reason',
    ],
  ])('refuses %s', async (_, file, code, rule) => {
    expect(await rulesBroken(file, code)).toContain(rule)
  })

  it('takes a cast that says why', async () => {
    const code = '// the types of the package leave this out\nexport const a = (b: string) => b as never\n'
    expect(await rulesBroken('core/one.ts', code)).toEqual([])
  })
})
