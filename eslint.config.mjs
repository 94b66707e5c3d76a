/** What a machine checks of the code: form, size, certainty. Who may import whom stands in .dependency-cruiser.cjs. */
import nextVitals from 'eslint-config-next/core-web-vitals';
import { defineConfig, globalIgnores } from 'eslint/config';
import tseslint from 'typescript-eslint';

const typescript = ['**/*.{ts,tsx}'];
const tests = ['**/*.test.{ts,tsx}', 'e2e/**', '**/testing.ts', '**/testing/**', '**/*.fixture.ts'];

/** Only here are components and hooks; elsewhere a function may begin with `use` without being one. */
const screens = ['{app,ui}/**/*.{ts,tsx}'];

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
  ...nextVitals.filter(({ rules }) => rules).map((config) => ({ ...config, files: screens })),
  ...tseslint.configs.recommendedTypeChecked.map((config) => ({ ...config, files: typescript })),
  {
    files: typescript,
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/no-unnecessary-type-assertion': 'off',
      '@typescript-eslint/no-base-to-string': 'off',
      '@typescript-eslint/unbound-method': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
    },
  },
  { files: screens, rules: { '@next/next/no-location-assign-relative-destination': 'off' } },
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
