import { defineConfig, globalIgnores } from 'eslint/config';
import nextVitals from 'eslint-config-next/core-web-vitals';
import tseslint from 'typescript-eslint';
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import importX from 'eslint-plugin-import-x';

const apart = (from, message) => ({ target: './standins', from, message });
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
  ...tseslint.configs.recommendedTypeChecked.map((c) => ({ ...c, files: ['**/*.{ts,tsx}'] })),
  {
    files: ['**/*.{ts,tsx}'],
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
    files: ['**/*.{ts,tsx}'],
    plugins: { 'import-x': importX },
    settings: { 'import-x/resolver-next': [createTypeScriptImportResolver()] },
    rules: {
      'import-x/no-cycle': 'error',
      'import-x/no-restricted-paths': [
        'error',
        {
          zones: [
            ...[
              './server',
              './app',
              './ui',
              './agent',
              './standins',
              './demo',
              './cli',
              './processes',
              './browser-workers',
            ].map((from) => ({ target: './core/**/!(*.test).ts', from, message: 'core is pure' })),
            ...['./ui', './browser-workers'].map((target) => ({
              target,
              from: './server',
              message: 'ui and workers have no data access',
            })),
            ...['./server', './app', './ui', './standins', './demo', './cli'].map((from) => ({
              target: './agent',
              from,
              message: 'the agent imports core alone',
            })),
            ...['./core', './server', './app', './ui', './agent', './demo', './cli'].map((from) =>
              apart(from, 'stand-ins share no code with Etagere'),
            ),
          ],
        },
      ],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
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
