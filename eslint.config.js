import js from '@eslint/js';
import ts from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';

export default ts.config(
  { ignores: ['**/dist/', '.data/', 'e2e/report/', 'e2e/results/'] },
  js.configs.recommended,
  ...ts.configs.strict,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      'no-restricted-exports': ['error', { restrictDefaultExports: { direct: true } }],
      'no-restricted-syntax': [
        'error',
        { selector: 'CatchClause > BlockStatement[body.length=0]', message: 'No silent catch.' },
      ],
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
    },
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    files: ['core/src/**/*.ts'],
    rules: {
      'no-restricted-globals': ['error', 'Date', 'process', 'console'],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random' }],
    },
  },
  { files: ['**/*.config.{ts,js}'], rules: { 'no-restricted-exports': 'off' } },
  {
    files: ['scripts/**', '**/*.{mjs,cjs}'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        Buffer: 'readonly',
        module: 'readonly',
        performance: 'readonly',
      },
    },
  },
);
