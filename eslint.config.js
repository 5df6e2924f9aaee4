import tseslint from 'typescript-eslint'
import reactHooks from 'eslint-plugin-react-hooks'
import { noReadingOfIds } from './scripts/lint/no-reading-of-ids.js'

const typedRules = {
  files: ['packages/core/src/**/*.ts', 'packages/contract/src/**/*.ts', 'apps/web/src/**/*.{ts,tsx}'],
  ignores: ['**/*.test.{ts,tsx}'],
  languageOptions: { parserOptions: { projectService: true } },
  plugins: { klados: { rules: { 'no-reading-of-ids': noReadingOfIds } } },
  rules: { 'klados/no-reading-of-ids': 'error' },
}

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.klados/**', '**/*.cjs', 'test-results/**'] },
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      eqeqeq: ['error', 'always'],
      'no-restricted-exports': ['error', { restrictDefaultExports: { direct: true } }],
      'prefer-const': 'error',
    },
  },
  typedRules,
  // Config files and the test runner's global set-up are called by name of their default export.
  { files: ['**/*.config.{js,ts}', '**/global-setup.ts'], rules: { 'no-restricted-exports': 'off' } },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'Date', 'console', 'process', 'window', 'document', 'fetch'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Core gets its chance as an argument.' },
      ],
    },
  },
  {
    files: ['apps/web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    // What a hook hangs on is asked with every change, by the quick linter.
    rules: { ...reactHooks.configs.recommended.rules, 'react-hooks/exhaustive-deps': 'off' },
  },
)
