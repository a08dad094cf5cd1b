import tseslint from 'typescript-eslint'
import vue from 'eslint-plugin-vue'

/** Nuxt's own automatic imports, which are fine; own modules are imported by path. */
const NUXT = [
  'computed',
  'ref',
  'reactive',
  'watch',
  'watchEffect',
  'shallowRef',
  'toRaw',
  'nextTick',
  'onMounted',
  'onBeforeUnmount',
  'useTemplateRef',
  'useId',
  'useHead',
  'useRoute',
  'useRouter',
  'useAsyncData',
  'useRequestFetch',
  'useNuxtApp',
  'useState',
  'navigateTo',
  'definePageMeta',
  'defineNuxtRouteMiddleware',
  'createError',
  'defineNuxtConfig',
]

export default tseslint.config(
  { ignores: ['.output/**', '.nuxt/**', 'node_modules/**', '.rekko/**', 'server/db/migrations/**'] },
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.ts', '**/*.vue'],
    languageOptions: {
      parserOptions: { parser: tseslint.parser, extraFileExtensions: ['.vue'] },
      globals: Object.fromEntries(NUXT.map((n) => [n, 'readonly'])),
    },
    rules: {
      '@typescript-eslint/consistent-type-imports': 'off',
      // Left with braces, such an import loads the module for nothing: once the whole of Zod, in the first load.
      '@typescript-eslint/no-import-type-side-effects': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      '@typescript-eslint/no-invalid-void-type': 'off',
      'no-control-regex': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
      'vue/no-mutating-props': 'error',
      'vue/attributes-order': 'off',
      'vue/html-indent': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/one-component-per-file': 'off',
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'fetch', 'process', 'console', 'setTimeout', 'setInterval'],
      'no-restricted-syntax': [
        'error',
        {
          selector: 'MemberExpression[object.name="Date"][property.name="now"]',
          message: 'Moments come in as arguments.',
        },
        { selector: 'NewExpression[callee.name="Date"][arguments.length=0]', message: 'Moments come in as arguments.' },
        {
          selector: 'MemberExpression[object.name="Math"][property.name="random"]',
          message: 'Chance comes in as an argument.',
        },
      ],
    },
  },
  { files: ['tests/**/*.ts', 'core/**/*.test.ts'], rules: { '@typescript-eslint/no-non-null-assertion': 'off' } },
)
