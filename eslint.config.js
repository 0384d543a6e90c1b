import a11y from 'eslint-plugin-jsx-a11y'
import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

/** What core must not touch: it has no I/O, no clock and no randomness of its own. */
const outsideCore = [
  'window',
  'document',
  'process',
  'Buffer',
  'fetch',
  'setTimeout',
  'setInterval',
  'crypto',
  'performance'
]

export default tseslint.config(
  {
    ignores: ['**/node_modules/**', '**/dist/**', '.data*/**', 'docs/**', 'coverage/**', '**/test-results/**']
  },
  ...tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: {
        // One project for all: of four, each would read and check core for itself.
        project: 'tsconfig.lint.json',
        tsconfigRootDir: import.meta.dirname
      }
    },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true }
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      // What keeps to a promised shape may be async without waiting for anything.
      '@typescript-eslint/require-await': 'off',
      eqeqeq: ['error', 'always'],
      'no-console': 'error',
      'no-nested-ternary': 'error',
      'no-self-compare': 'error',
      // A switch over a closed set counts once: each of its cases is a line.
      complexity: ['error', { max: 20, variant: 'modified' }],
      'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }]
    }
  },
  {
    // The schemas of all calls would weigh more than the first load may.
    files: ['web/src/**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        { patterns: [{ group: ['@pasado/core/api/*'], allowTypeImports: true, message: 'import its types only' }] }
      ]
    }
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks, 'jsx-a11y': a11y },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      ...a11y.configs.recommended.rules,
      // A sheet or form that was asked for begins in its first field.
      'jsx-a11y/no-autofocus': 'off',
      // What scrolls is reached by the keyboard.
      'jsx-a11y/no-noninteractive-tabindex': [
        'error',
        { tags: ['ol', 'ul', 'pre'], roles: ['tabpanel', 'region', 'group'] }
      ],
      // Handlers of the interface may be async: what goes wrong in them is shown by what they call.
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }]
    }
  },
  {
    files: ['core/src/**/*.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...outsideCore.map((name) => ({ name, message: 'core has no I/O, no clock and no randomness of its own' }))
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'pass randomness in' },
        { object: 'Date', property: 'now', message: 'pass the time in' }
      ],
      'no-restricted-syntax': [
        'error',
        { selector: 'NewExpression[callee.name="Date"][arguments.length=0]', message: 'pass the time in' }
      ]
    }
  },
  {
    files: ['cli/**/*.ts', 'scripts/**/*.ts', 'bench/**/*.ts', 'e2e/**/*.ts', 'server/test/**/*.ts', 'testing/**/*.ts'],
    rules: { 'no-console': 'off' }
  },
  {
    // Tests, demo data and tables are as long as what they tell.
    files: [
      '**/test/**',
      '**/*.test.{ts,tsx}',
      'testing/**',
      'e2e/**',
      'demo/**',
      'scripts/keep-fixtures.ts',
      'core/src/work/diagnose/{effects,looks}.ts'
    ],
    rules: { 'max-lines': 'off' }
  },
  {
    // What stands in for something in a test answers whatever it is told to.
    files: ['**/test/**', '**/*.test.{ts,tsx}', 'testing/**', 'e2e/**'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-base-to-string': 'off'
    }
  },
  { files: ['**/*.{js,cjs,mjs}'], ...tseslint.configs.disableTypeChecked }
)
