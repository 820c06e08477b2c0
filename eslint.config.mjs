import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

export default ts.config(
  {
    ignores: [
      '**/dist/**',
      '**/dist-types/**',
      '.data',
      '.test',
      'test-results',
      'core/check-values',
      // plain files outside the type check
      '**/*.mjs',
      '**/*.cjs',
      'web/vite.config.ts',
    ],
  },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [ts.configs.recommendedTypeChecked],
    languageOptions: {
      parserOptions: {
        project: [
          './*/tsconfig.json',
          './core/tsconfig.test.json',
          './contract/tsconfig.test.json',
          './server/tsconfig.test.json',
        ],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      // no longer than can be read at a go; more arguments get names
      'max-lines-per-function': ['error', { max: 135, skipBlankLines: true, skipComments: true }],
      'max-params': ['error', 5],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-misused-promises': [
        'error',
        { checksVoidReturn: { attributes: false } },
      ],
    },
  },
  {
    // tests and migrations are lists; kernels and a canvas context have the arguments that they have
    files: [
      '**/*.{test,spec}.{ts,tsx}',
      'bench/**/*.ts',
      'server/src/database/migrations/*.ts',
      'core/src/learning/solver/{preconditioner,wasm/simdMemory}.ts',
      'web/src/report/svgContext.ts',
    ],
    rules: { 'max-lines-per-function': 'off', 'max-params': 'off' },
  },
  { files: ['web/src/**/*.{ts,tsx}'], ...hooks.configs.flat.recommended },
);
