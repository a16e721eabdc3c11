import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/** Packages of the interface, which `core` must not know. */
const interfacePackages = [
  'react',
  'react-*',
  '@mui/*',
  '@emotion/*',
  'chart.js',
  'comlink',
  '@dnd-kit/*',
  'qrcode',
];

const only = (...patterns) => ({
  'no-restricted-imports': ['error', { patterns }],
});
const dexie = { group: ['dexie', 'dexie-*'], message: 'Only app/store knows Dexie.' };

export default tseslint.config(
  { ignores: ['build', 'node_modules', '.react-router', '.cache'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    languageOptions: { globals: { ...globals.node } },
    rules: {
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', ignoreRestSiblings: true }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
    },
  },
  {
    // Rules that need types: a promise nobody waits for, a case nobody thought of.
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      '@typescript-eslint/no-import-type-side-effects': 'error',
    },
  },
  {
    files: ['app/**'],
    plugins: { 'react-hooks': reactHooks },
    languageOptions: { globals: { ...globals.browser } },
    rules: { ...reactHooks.configs.recommended.rules, ...only(dexie) },
  },
  { files: ['app/store/**'], rules: { 'no-restricted-imports': 'off' } },
  {
    files: ['core/**'],
    rules: only(dexie, {
      group: ['~/*', '**/app/**', '**/cli/**', 'node:*', ...interfacePackages],
      message: 'Core is pure: nothing of the app, the command line or Node.',
    }),
  },
  { files: ['core/**/*.test.ts', 'core/testing/**'], rules: { 'no-restricted-imports': 'off' } },
  {
    files: ['cli/**'],
    rules: only(dexie, { group: ['~/*', '**/app/**'], message: 'The command line uses core alone.' }),
  },
  { files: ['scripts/**'], rules: { 'no-console': 'off' } },
);
