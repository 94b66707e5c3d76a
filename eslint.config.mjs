/** What a machine checks of the code: form, size, certainty, and who may import whom (docs/architecture.md). */
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import nextVitals from 'eslint-config-next/core-web-vitals';
import importX from 'eslint-plugin-import-x';
import { defineConfig, globalIgnores } from 'eslint/config';
import tseslint from 'typescript-eslint';

const typescript = ['**/*.{ts,tsx}'];
const tests = ['**/*.test.{ts,tsx}', 'e2e/**', '**/testing.ts', '**/testing/**', '**/*.fixture.ts'];

const forbid = (targets, sources, message) =>
  targets.flatMap((target) => sources.map((from) => ({ target, from, message })));

const zones = [
  ...forbid(
    ['./core/**/!(*.test).ts'],
    [
      './server',
      './app',
      './ui',
      './agent',
      './standins',
      './demo',
      './cli',
      './processes',
      './browser-workers',
      './benchmarks',
    ],
    'core is pure',
  ),
  ...forbid(['./ui', './browser-workers'], ['./server'], 'ui and workers have no data access'),
  ...forbid(
    ['./agent'],
    ['./server', './app', './ui', './standins', './demo', './cli'],
    'the agent imports core alone',
  ),
  ...forbid(
    ['./standins'],
    ['./core', './server', './app', './ui', './agent', './demo', './cli'],
    'stand-ins share no code with Etagere',
  ),
];

export default defineConfig([
  globalIgnores([
    '.next/**',
    'dist/**',
    'next-env.d.ts',
    'coverage/**',
    'e2e/.out/**',
    'kernel/**',
    'core/look/kernel/bytes.gen.ts',
  ]),
  ...nextVitals,
  ...tseslint.configs.recommendedTypeChecked.map((config) => ({ ...config, files: typescript })),
  {
    files: typescript,
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/no-unnecessary-type-assertion': 'off',
      '@typescript-eslint/no-base-to-string': 'off',
      '@typescript-eslint/unbound-method': 'off',
      '@next/next/no-location-assign-relative-destination': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
    },
  },
  {
    files: ['**/*.{ts,tsx,mjs,cjs}'],
    rules: {
      'one-var': ['error', 'never'],
      'no-nested-ternary': 'error',
      'no-useless-rename': 'error',
      'object-shorthand': 'error',
      complexity: ['error', 20],
      'max-depth': ['error', 4],
    },
  },
  {
    files: ['**/*.{ts,mjs,cjs}'],
    ignores: tests,
    rules: { 'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }] },
  },
  {
    files: ['**/*.tsx'],
    ignores: tests,
    rules: { 'max-lines-per-function': ['error', { max: 150, skipBlankLines: true, skipComments: true }] },
  },
  {
    files: ['{ui,app,server,agent,cli}/**/*.{ts,tsx}'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'error' },
  },
  {
    // statements stand in files of their own, by subject, where they are found together
    files: ['{server,app,processes,cli}/**/*.{ts,tsx}'],
    ignores: ['**/queries.ts', '**/*-queries.ts', '**/queries/**', ...tests],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...['Literal[value=', 'TemplateElement[value.raw='].map((text) => ({
          selector: `${text}/^\\s*((select|insert into|update|delete from) [a-z_(*]|with [a-z_]+ as )/]`,
          message: 'SQL stands in the queries file of its subject',
        })),
      ],
    },
  },
  {
    files: typescript,
    plugins: { 'import-x': importX },
    settings: { 'import-x/resolver-next': [createTypeScriptImportResolver()] },
    rules: { 'import-x/no-cycle': 'error', 'import-x/no-restricted-paths': ['error', { zones }] },
  },
  {
    files: ['core/**/*.ts'],
    // tries.ts is for tests alone
    ignores: ['**/*.test.ts', 'core/tries.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ regex: '^(react|next|node:|pg$|d3|sharp|graphile)', message: 'core is pure' }] },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'Buffer'],
    },
  },
  {
    files: ['**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        document: 'readonly',
      },
    },
  },
]);
