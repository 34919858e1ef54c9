import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['**/dist/', '**/bundle/', '**/node_modules/', 'test-results/', 'playwright-report/'] },
  js.configs.recommended,
  tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      // The framework's modules are classes that only carry decorators.
      '@typescript-eslint/no-extraneous-class': ['error', { allowWithDecorator: true, allowStaticOnly: true }],
    },
  },
  { files: ['web/src/**/*.{ts,tsx}'], ...reactHooks.configs.flat.recommended },
  { files: ['scripts/**', '*.mjs', 'server/*.mjs'], languageOptions: { globals: globals.node } },
  // Its measurements in the page run there.
  { files: ['scripts/bench*.mjs'], languageOptions: { globals: { ...globals.node, ...globals.browser } } },
);
