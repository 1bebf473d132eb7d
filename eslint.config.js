import js from '@eslint/js';
import ts from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';

const noSilentCatch = {
  selector: 'CatchClause > BlockStatement[body.length=0]',
  message: 'No silent catch.',
};
const clock = 'Core has no clock: take the time from what is passed in.';

export default ts.config(
  { ignores: ['**/dist/', '.data/', 'e2e/report/', 'e2e/results/'] },
  js.configs.recommended,
  ...ts.configs.strict,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      'no-restricted-exports': ['error', { restrictDefaultExports: { direct: true } }],
      'no-restricted-syntax': ['error', noSilentCatch],
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      // RTK Query takes void for a query without argument.
      '@typescript-eslint/no-invalid-void-type': 'off',
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
      'no-restricted-globals': ['error', 'process', 'console'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random' },
        { object: 'Date', property: 'now', message: clock },
      ],
      'no-restricted-syntax': [
        'error',
        noSilentCatch,
        { selector: 'NewExpression[callee.name="Date"][arguments.length=0]', message: clock },
      ],
    },
  },
  {
    files: ['web/public/*.js'],
    languageOptions: { globals: { localStorage: 'readonly', matchMedia: 'readonly', document: 'readonly' } },
  },
  { files: ['**/*.config.{ts,js}', 'e2e/start-shop.ts'], rules: { 'no-restricted-exports': 'off' } },
  {
    files: ['scripts/**', '**/*.{mjs,cjs}'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        clearTimeout: 'readonly',
        Buffer: 'readonly',
        module: 'readonly',
        performance: 'readonly',
        document: 'readonly',
      },
    },
  },
);
