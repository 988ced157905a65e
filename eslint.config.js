import js from '@eslint/js';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.data/**', '**/*.cjs'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports', disallowTypeAnnotations: false }],
      '@typescript-eslint/explicit-module-boundary-types': 'error',
      'no-console': 'error',
      eqeqeq: 'error',
    },
  },
  {
    files: ['web/**/*.tsx'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: 'antd',
              importNames: ['InputNumber'],
              message: 'Figures are typed into fields/NumberField: others read 62,50 as 6250.',
            },
            {
              name: 'antd',
              importNames: ['DatePicker'],
              message: 'Days are typed into fields/DateField: others drop 31 February without a word.',
            },
          ],
        },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: 'JSXAttribute[name.name="type"][value.value="number"]', message: 'Figures are typed into fields/NumberField.' },
        { selector: 'JSXAttribute[name.name="type"][value.value="date"]', message: 'Days are typed into fields/DateField.' },
      ],
      'no-restricted-globals': ['error', { name: 'fetch', message: 'Ask the server by app/api, or by app/server for files.' }],
    },
  },
  { files: ['web/src/app/server.ts', 'web/src/serviceWorker.ts'], rules: { 'no-restricted-globals': 'off' } },
  { files: ['web/src/fields/DateField.tsx'], rules: { 'no-restricted-imports': 'off' } },
  { files: ['server/**/*.ts'], rules: { '@typescript-eslint/consistent-type-imports': 'off' } },
  {
    files: ['server/src/main.ts', 'scripts/**', 'bench/**', 'cli/bin/**'],
    rules: { 'no-console': 'off', '@typescript-eslint/explicit-module-boundary-types': 'off' },
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        clearTimeout: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        performance: 'readonly',
        FormData: 'readonly',
        Blob: 'readonly',
        window: 'readonly',
        document: 'readonly',
        Event: 'readonly',
        KeyboardEvent: 'readonly',
        HTMLInputElement: 'readonly',
        requestAnimationFrame: 'readonly',
        PerformanceObserver: 'readonly',
        Buffer: 'readonly',
      },
    },
  },
  { files: ['**/*.test.ts', 'e2e/**', 'server/test/**'], rules: { '@typescript-eslint/explicit-module-boundary-types': 'off' } },
);
