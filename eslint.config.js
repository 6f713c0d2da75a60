import prettier from 'eslint-config-prettier/flat'
import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'
import { castsWithReason } from './scripts/lint/castsWithReason.mjs'
import { kindsInTheirFolders } from './scripts/lint/kindsInTheirFolders.mjs'
import { noNestedConditional } from './scripts/lint/noNestedConditional.mjs'

/** Two folders up or more: `~/` in app, `#core`, `#shared` and `#server` elsewhere say where a thing lives. */
const CLIMBING = {
  regex: '^(\\.\\./){2,}',
  message: 'use an alias (~/, #core, #shared, #server) instead of climbing',
}
const FRAMEWORKS = '^(vue|nuxt|pinia|vuetify|h3|nitropack|drizzle-orm|postgres|node:|@tiptap|zod)(/|$)'

/** Imports go down only: app → shared, core; server → shared, core; shared → core; core → core. */
const layer = (files, forbidden, message) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: [CLIMBING, ...forbidden.map(regex => ({ regex, message }))] },
    ],
  },
})

/** Areas of services, lowest first: one uses those before it, each through its door (`index.ts`). */
const AREAS = [
  'people',
  'files',
  'rubrics',
  'planning',
  'contributing',
  'kinds', // what each kind of activity does in its own way
  'standing',
  'marking',
  'closing',
  'composing',
  'voices',
  'messaging',
  'keeping',
  'screens',
]
const homeOf = area => (area === 'kinds' ? 'server/kinds' : `server/services/${area}`)
const areaRules = AREAS.map((area, i) =>
  layer(
    [`${homeOf(area)}/**/*.ts`],
    [
      `^#(${AREAS.filter(other => other !== area)
        .map(homeOf)
        .join('|')})/`,
      `^#(${AREAS.slice(i).map(homeOf).join('|')})$`,
      '^~', // and nothing of the app
    ],
    `${area} uses ${AREAS.slice(0, i).join(', ') || 'no other area'}, through their index.ts`,
  ),
)

export default tseslint.config(
  { ignores: ['.nuxt', '.output', '.data', 'node_modules', 'test-results', 'server/database/migrations'] },
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'],
  prettier,
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
  {
    plugins: {
      jovrel: {
        rules: {
          'casts-with-reason': castsWithReason,
          'kinds-in-their-folders': kindsInTheirFolders,
          'no-nested-conditional': noNestedConditional,
        },
      },
    },
    rules: {
      'jovrel/casts-with-reason': 'error',
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      'max-statements-per-line': ['error', { max: 1 }],
      // a sentence stays in one piece, so that search finds it
      'max-len': [
        'error',
        { code: 140, ignoreStrings: true, ignoreTemplateLiterals: true, ignoreRegExpLiterals: true },
      ],
      'jovrel/no-nested-conditional': 'error',
      'no-restricted-imports': ['error', { patterns: [CLIMBING] }],
      '@typescript-eslint/no-non-null-assertion': 'off', // guarded by the lines around it; a throw would say no more
      '@typescript-eslint/no-invalid-void-type': 'off',
      // what is left out of a copy has a name all the same
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', ignoreRestSiblings: true }],
      'no-console': ['error', { allow: ['error'] }],
      'no-undef': 'off', // the type checker knows better
      'vue/multi-word-component-names': 'off', // an area's folder says the rest
      'vue/require-default-prop': 'off', // an optional prop is undefined when it is not given
    },
  },
  { files: ['scripts/**', 'bench/**', 'e2e/**', 'demo/**'], rules: { 'no-console': 'off' } },
  {
    files: ['app/**/*.vue'],
    ignores: ['app/components/controls/**'],
    rules: {
      'vue/no-restricted-html-elements': [
        'error',
        { element: ['dialog', 'v-dialog'], message: 'ModalDialog gives the keyboard back when it closes.' },
        { element: 'v-menu', message: 'CardMenu takes the keyboard and gives it back.' },
        {
          element: 'button',
          message: 'Buttons are in controls: TextButton, ChipButton, PlainButton, v-btn.',
        },
        {
          element: ['input', 'select', 'textarea'],
          message:
            'Fields are in controls: LabelledField, LineInput, LinesInput, PickList, CheckBox, PlainCheckbox, PlainRadio, FileInput.',
        },
      ],
    },
  },
  {
    // thousands of places one goes through by arrows: each follows the practice for its kind by itself
    files: [
      'app/components/marking/gradebook/GradeGrid.vue',
      'app/components/marking/peers/AllocationMatrix.vue',
      'app/components/marking/RubricLadder.vue',
      'app/components/planning/PlanBar.vue',
      'app/kinds/review/ScoreLadder.vue',
    ],
    rules: { 'vue/no-restricted-html-elements': 'off' },
  },
  {
    files: ['{app,core,shared,server}/**/*.{ts,vue}'],
    ignores: ['*/kinds/**', '**/*.test.ts', '**/testing/**'],
    rules: { 'jovrel/kinds-in-their-folders': 'error' },
  },
  layer(
    ['core/**/*.ts'],
    ['^#(shared|server)', '^~', '(^|/)\\.\\./(.*/)?(app|server|shared|demo)/', FRAMEWORKS],
    'core imports nothing but core and plain computing packages',
  ),
  layer(
    ['shared/**/*.ts'],
    ['^#server', '^~', '(^|/)\\.\\./(.*/)?(app|server|demo)/'],
    'shared imports only core',
  ),
  layer(
    ['app/**/*.{ts,vue}'],
    ['^#server', '(^|/)\\.\\./(.*/)?(server|demo)/'],
    'app imports only shared and core',
  ),
  layer(
    ['app/autosave/*.ts'],
    ['^#server', '^(vue|nuxt|pinia|#imports)', '^~/(components|stores|pages)'],
    'autosave is computed without a framework; useAutosave binds it to a component',
  ),
  layer(['server/**/*.ts'], ['^~', '(^|/)\\.\\./(.*/)?(app|demo)/'], 'server imports only shared and core'),
  ...areaRules,
  layer(['server/access/**/*.ts'], ['^#server/services', '^~'], 'access is asked by services; it calls none'),
  // a route parses, asks access, calls one service and answers: the database is not its business
  layer(
    ['server/api/**/*.ts'],
    ['^#server/database', '^drizzle-orm', '^~'],
    'a route calls a service; it does not reach into the database',
  ),
  { files: ['e2e/**'], rules: { 'no-empty-pattern': 'off' } }, // the runner reads which fixtures a test wants from the pattern
  { files: ['**/*.test.ts'], rules: { 'no-restricted-imports': ['error', { patterns: [CLIMBING] }] } },
)
