import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['**/node_modules/**', '**/dist/**', '.data*/**', 'docs/**', 'coverage/**', '**/test-results/**'] },
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true }
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: ['error', 'always'],
      'no-console': 'error',
      'max-lines': ['error', { max: 1100, skipBlankLines: true, skipComments: true }]
    }
  },
  {
    // The core knows no browser, no Node, no clock and no chance.
    files: ['core/src/**/*.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...[
          'window',
          'document',
          'process',
          'Buffer',
          'fetch',
          'setTimeout',
          'setInterval',
          'crypto',
          'performance'
        ].map((name) => ({ name, message: 'core has no I/O, no clock and no randomness of its own' }))
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
    files: ['cli/**/*.ts', 'scripts/**/*.ts', 'bench/**/*.ts', 'e2e/**/*.ts', 'server/test/**/*.ts'],
    rules: { 'no-console': 'off' }
  }
)
