import js from '@eslint/js';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '.data/**',
      '.angular/**',
      'server/migrations/**',
      '**/test-results/**',
    ],
  },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      // Asserted where the line before makes it certain; a comment there would only repeat it.
      '@typescript-eslint/no-non-null-assertion': 'off',
      // Angular's components and injectables may be mere holders of their decorators.
      '@typescript-eslint/no-extraneous-class': 'off',
      'no-console': 'off',
      eqeqeq: ['error', 'always'],
    },
  },
  {
    files: ['{core,server,web,demo}/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/testing/**'],
    languageOptions: {
      parserOptions: {
        project: ['core', 'server', 'web', 'demo'].map((part) => `${part}/tsconfig.json`),
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      // Who adds a kind or an effect is told of each place that has to know it; `default` would hide that.
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: false },
      ],
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/testing/**'],
    rules: {
      'no-restricted-imports': ['error', { patterns: ['node:*', '@stylet/*', 'fs', 'path'] }],
      'no-console': 'error',
    },
  },
  {
    files: ['web/src/app/**/*.ts'],
    ignores: ['**/*.test.ts', 'web/src/app/storage/account.ts'],
    rules: {
      // What a browser keeps is an account's.
      'no-restricted-globals': [
        'error',
        ...['localStorage', 'sessionStorage', 'indexedDB', 'BroadcastChannel'].map((name) => ({
          name,
          message: 'Use what storage/account.ts has of it.',
        })),
      ],
    },
  },
  {
    files: ['e2e/**/*.ts'],
    // Playwright wants its fixtures destructured, also when none is used.
    rules: { 'no-empty-pattern': 'off' },
  },
  {
    files: ['**/*.mjs', '**/*.cjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        module: 'writable',
      },
    },
  },
);
