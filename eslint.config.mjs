import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['**/node_modules/', '**/dist/', '.data/', '**/.expo/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  prettier,
  { languageOptions: { globals: { ...globals.node } } },
  // Taking members out of an object by naming them is no variable that was forgotten.
  { rules: { '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }] } },
  { files: ['scripts/**/*.test.mjs'], languageOptions: { globals: globals.jest } },
  {
    files: ['app/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    languageOptions: { globals: globals.browser },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // What changed is told on commit: the message cannot be lost, nor come before the change.
    files: ['server/src/**/endpoints.ts'],
    ignores: ['server/src/people/endpoints.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.name='notify'][arguments.0.property.name='pool']",
          message: 'Tell of a change in its transaction: changeAndNotify, or notify(db, …).',
        },
      ],
    },
  },
  { files: ['app/*.js', 'bench/minimal/*.js'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  {
    // The core computes: it reads no clock, no chance, no environment.
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Pass now in.' },
        { object: 'Math', property: 'random', message: 'The same input gives the same output.' },
      ],
      'no-restricted-globals': ['error', 'process', 'window', 'document', 'fetch', 'performance'],
    },
  },
);
