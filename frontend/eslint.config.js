import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import hooks from 'eslint-plugin-react-hooks';
import refresh from 'eslint-plugin-react-refresh';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['dist', 'src/api/schema.d.ts', 'eslint.config.js'] },
  js.configs.recommended,
  ...ts.configs.strict,
  hooks.configs.flat['recommended-latest'],
  refresh.configs.vite,
  prettier,
  {
    // A component lays out or decides, and can be read at one look. An exception says why, beside it.
    rules: {
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
      complexity: ['error', 12],
      'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }],
    },
  },
);
