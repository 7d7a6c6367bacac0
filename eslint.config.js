// Components alone: all that is TypeScript by itself is read by oxlint (.oxlintrc.json), which knows its types.
import js from '@eslint/js';
import { defineConfig, globalIgnores } from 'eslint/config';
import prettier from 'eslint-config-prettier';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './web/svelte.config.js';

export default defineConfig(
  globalIgnores(['**/node_modules/', 'web/build/', '**/.svelte-kit/', 'test-results/', '.data/']),
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    extends: [
      js.configs.recommended,
      ts.configs.strict,
      ts.configs.stylistic,
      svelte.configs.recommended,
      prettier,
      svelte.configs.prettier,
    ],
    languageOptions: {
      globals: { ...globals.browser },
      parserOptions: { parser: ts.parser, svelteConfig },
    },
    linterOptions: { reportUnusedDisableDirectives: 'error' },
    rules: {
      'no-undef': 'off',
      'prefer-const': 'off',
      'svelte/prefer-const': ['error', { excludedRunes: ['$props', '$derived', '$state'] }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-import-type-side-effects': 'error',
      // Documents and results are raw state: whole values replaced, never changed in place.
      'svelte/prefer-svelte-reactivity': 'off',
      // The app is served from the root, so its paths need no resolving.
      'svelte/no-navigation-without-resolve': 'off',
      // svelte-check reads the types of components; asked for them again here, each one costs a second.
      'svelte/no-unused-props': 'off',
      'svelte/require-store-reactive-access': 'off',
    },
  },
);
