import js from '@eslint/js';
import angular from 'angular-eslint';
import prettier from 'eslint-config-prettier';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '.angular/**',
      '.cache/**',
      '**/*.generated.*',
      'test-results/**',
      'data/**',
    ],
  },
  {
    files: ['**/*.ts'],
    extends: [js.configs.recommended, ...tseslint.configs.recommendedTypeChecked],
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { ignoreRestSiblings: true, argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/consistent-type-imports': 'error',
    },
  },
  {
    files: ['**/*.spec.ts', 'e2e/**/*.ts', 'server/src/testing/**'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
    },
  },
  {
    files: ['web/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': [
        'error',
        { type: ['element', 'attribute'], prefix: 'nc', style: 'kebab-case' },
      ],
      '@angular-eslint/directive-selector': [
        'error',
        { type: 'attribute', prefix: 'nc', style: 'camelCase' },
      ],
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
    },
  },
  {
    files: ['web/src/**/*.ts'],
    ignores: ['web/src/app/data/platform.ts', '**/*.spec.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        ...[
          ['crypto', 'randomUUID'],
          ...['serviceWorker', 'wakeLock', 'clipboard', 'storage', 'locks', 'setAppBadge'].map(
            (property) => ['navigator', property],
          ),
          ['Notification', 'requestPermission'],
        ].map(([object, property]) => ({
          object,
          property,
          message: 'Only in a secure context: ask for it in data/platform.ts.',
        })),
      ],
    },
  },
  {
    files: ['server/src/{db,threads,store,work,routes}/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: ['node:fs', 'node:fs/promises'].map((name) => ({
            name,
            importNames: [
              ...['open', 'openSync', 'openAsBlob', 'promises', 'default'],
              ...['readFile', 'readFileSync', 'createReadStream', 'copyFile', 'copyFileSync'],
              ...['writeFile', 'writeFileSync', 'appendFile', 'appendFileSync'],
              ...['createWriteStream', 'truncate', 'truncateSync', 'cp', 'cpSync'],
            ],
            message:
              'The data file is opened by SQLite alone: closing any other handle of it drops SQLite’s locks.',
          })),
        },
      ],
    },
  },
  {
    files: ['web/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    rules: { '@angular-eslint/template/no-any': 'error' },
  },
  prettier,
);
