import js from '@eslint/js';
import a11y from 'eslint-plugin-jsx-a11y-x';
import reactHooks from 'eslint-plugin-react-hooks';
import importSort from 'eslint-plugin-simple-import-sort';
import globals from 'globals';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['**/dist/', '**/bundle/', '**/node_modules/', 'test-results/', 'playwright-report/'] },
  js.configs.recommended,
  tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      // A schema's type under a name of its own, which then stands where it is used instead of all of its fields.
      '@typescript-eslint/no-empty-object-type': ['error', { allowInterfaces: 'with-single-extends' }],
      // The framework's modules are classes that only carry decorators.
      '@typescript-eslint/no-extraneous-class': ['error', { allowWithDecorator: true, allowStaticOnly: true }],
    },
  },
  {
    // What types know: a promise nobody waits for, a case nobody thought of.
    files: [
      'core/src/**/*.ts',
      'body/src/**/*.ts',
      'library/src/**/*.ts',
      'server/src/**/*.ts',
      'web/src/**/*.{ts,tsx}',
      'e2e/**/*.ts',
    ],
    languageOptions: {
      parserOptions: {
        project: [
          'tsconfig.test.json',
          'web/tsconfig.json',
          'server/tsconfig.json',
          'core/tsconfig.json',
          'body/tsconfig.json',
          'library/tsconfig.json',
        ],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
  { files: ['web/src/**/*.{ts,tsx}'], ...reactHooks.configs.flat.recommended },
  {
    files: ['web/src/**/*.tsx'],
    ...a11y.configs.recommended,
    rules: {
      ...a11y.configs.recommended.rules,
      // A screen or a dialog that asks one thing begins there.
      'jsx-a11y-x/no-autofocus': 'off',
      // What scrolls can be reached by keyboard.
      'jsx-a11y-x/no-noninteractive-tabindex': ['error', { roles: ['region'], tags: [] }],
      'jsx-a11y-x/label-has-associated-control': ['error', { depth: 3 }],
    },
  },
  {
    // One order of imports: packages, the house, then what lies beside.
    plugins: { 'simple-import-sort': importSort },
    rules: { 'simple-import-sort/imports': 'error', 'simple-import-sort/exports': 'error' },
  },
  { files: ['scripts/**', '*.mjs', 'server/*.mjs'], languageOptions: { globals: globals.node } },
  // Its measurements in the page run there.
  { files: ['scripts/bench*.mjs'], languageOptions: { globals: { ...globals.node, ...globals.browser } } },
);
