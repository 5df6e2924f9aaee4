import tseslint from 'typescript-eslint'
import reactHooks from 'eslint-plugin-react-hooks'
import { noReadingOfIds } from './scripts/lint/no-reading-of-ids.js'

/** Rules that ask a compiler, for types or for what React could keep, take longer than all others: the long check has them. */
const isLong = process.env.KLADOS_LONG === '1'

const quickHookRules = { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'warn' }

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
  ...(isLong ? [typedRules] : []),
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
    rules: isLong ? reactHooks.configs.recommended.rules : quickHookRules,
  },
)
