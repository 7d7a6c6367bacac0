import js from '@eslint/js';
import { defineConfig, globalIgnores } from 'eslint/config';
import prettier from 'eslint-config-prettier';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './web/svelte.config.js';

export default defineConfig(
  globalIgnores(['**/node_modules/', 'web/build/', '**/.svelte-kit/', 'test-results/', '.data/']),
  js.configs.recommended,
  ts.configs.strictTypeChecked,
  ts.configs.stylisticTypeChecked,
  svelte.configs.recommended,
  prettier,
  svelte.configs.prettier,
  {
    languageOptions: {
      globals: { ...globals.node },
      parserOptions: {
        projectService: true,
        tsconfigRootDir: import.meta.dirname,
        extraFileExtensions: ['.svelte'],
      },
    },
    linterOptions: { reportUnusedDisableDirectives: 'error' },
    rules: {
      'no-undef': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-import-type-side-effects': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
    },
  },
  {
    files: ['web/src/**'],
    languageOptions: { globals: { ...globals.browser } },
    // The app is served from the root, so its paths need no resolving.
    rules: { 'svelte/no-navigation-without-resolve': 'off' },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
    rules: {
      'prefer-const': 'off',
      'svelte/prefer-const': ['error', { excludedRunes: ['$props', '$derived', '$state'] }],
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/no-unnecessary-condition': 'off',
      // Documents and results are raw state: whole values replaced, never changed in place.
      'svelte/prefer-svelte-reactivity': 'off',
    },
  },
  {
    // svelte-check reads the types of components; asked for them again here, each one costs a second.
    files: ['**/*.svelte'],
    extends: [ts.configs.disableTypeChecked],
    languageOptions: { parserOptions: { projectService: false } },
    rules: { 'svelte/no-unused-props': 'off', 'svelte/require-store-reactive-access': 'off' },
  },
  {
    files: ['core/src/**/*.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process'],
      'no-restricted-imports': ['error', { patterns: ['svelte*', '$app/*', 'node:*', '@flarik/web*'] }],
    },
  },
);
