import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

const coreMayNotImport = {
  patterns: [
    {
      regex: '^(?!\\.{1,2}/|fast-xml-parser$|fflate$|@tonejs/midi$)',
      message: 'src/core is pure: no Node.js, no interface code, no packages but for file formats.',
    },
    {
      regex: '\\.\\./(lib|routes|hooks)',
      message: 'src/core does not reach out of itself.',
    },
  ],
};

export default ts.config(
  { ignores: ['.svelte-kit/', 'build/', 'node_modules/', '.bench/', 'data/', 'demo-data/'] },
  js.configs.recommended,
  ...ts.configs.strict,
  ...svelte.configs['flat/recommended'],
  prettier,
  ...svelte.configs['flat/prettier'],
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      'no-undef': 'off',
      'no-irregular-whitespace': 'off',
      eqeqeq: 'error',
      'no-restricted-exports': ['error', { restrictDefaultExports: { direct: true } }],
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      'svelte/no-navigation-without-resolve': 'off',
    },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: {
      parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig },
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['src/core/**/*.test.ts'],
    languageOptions: { globals: {} },
    rules: {
      'no-restricted-imports': ['error', coreMayNotImport],
      'no-restricted-globals': [
        'error',
        ...['window', 'document', 'process', 'fetch', 'Date', 'performance', 'setTimeout'].map(
          (name) => ({ name, message: 'src/core is pure: no DOM, Node.js or clock.' }),
        ),
      ],
    },
  },
  {
    files: ['*.config.{js,ts}', '**/*.svelte'],
    rules: { 'no-restricted-exports': 'off' },
  },
);
