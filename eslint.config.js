import tseslint from 'typescript-eslint'
import vue from 'eslint-plugin-vue'

/** Imports go down only: app → shared, core; server → shared, core; shared → core; core → core. */
const floor = (files, forbidden, message) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns: forbidden.map(regex => ({ regex, message })) }] },
})
const FRAMEWORKS = '^(vue|nuxt|pinia|vuetify|h3|nitropack|drizzle-orm|postgres|node:|@tiptap|zod)(/|$)'

export default tseslint.config(
  { ignores: ['.nuxt', '.output', '.data', 'node_modules', 'test-results', 'server/database/migrations'] },
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off', // guarded by the lines around it; a throw would say no more
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', ignoreRestSiblings: true }], // what is taken out of a copy has a name all the same
      'no-console': ['error', { allow: ['error'] }],
      'no-undef': 'off', // the type checker knows better
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-indent': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/attributes-order': 'off',
      'vue/require-default-prop': 'off',
      'vue/first-attribute-linebreak': 'off',
    },
  },
  { files: ['scripts/**', 'bench/**', 'e2e/**', 'demo/**'], rules: { 'no-console': 'off' } },
  floor(
    ['core/**/*.ts'],
    ['^#(shared|server)', '^~', '(^|/)\\.\\./(.*/)?(app|server|shared|demo)/', FRAMEWORKS],
    'core imports nothing but core and plain computing packages',
  ),

  floor(
    ['shared/**/*.ts'],
    ['^#server', '^~', '(^|/)\\.\\./(.*/)?(app|server|demo)/'],
    'shared imports only core',
  ),
  floor(
    ['app/**/*.{ts,vue}'],
    ['^#server', '(^|/)\\.\\./(.*/)?(server|demo)/'],
    'app imports only shared and core',
  ),
  floor(['server/**/*.ts'], ['^~', '(^|/)\\.\\./(.*/)?(app|demo)/'], 'server imports only shared and core'),
  // a route parses, asks access, calls one service and answers: the database is not its business
  floor(
    ['server/api/**/*.ts'],
    ['^#server/database', '^drizzle-orm', '^~'],
    'a route calls a service; it does not reach into the database',
  ),
  { files: ['e2e/**'], rules: { 'no-empty-pattern': 'off' } }, // the runner reads which fixtures a test wants from the pattern
  { files: ['**/*.test.ts'], rules: { 'no-restricted-imports': 'off' } },
)
