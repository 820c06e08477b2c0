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
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-misused-promises': [
        'error',
        { checksVoidReturn: { attributes: false } },
      ],
    },
  },
  { files: ['web/src/**/*.{ts,tsx}'], ...hooks.configs.flat.recommended },
);
