import angular from 'angular-eslint';
import prettier from 'eslint-config-prettier/flat';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: [
      'dist/',
      '.angular/',
      'out-tsc/',
      '**/generated/',
      'public/worklets/',
      'playwright-report/',
      'test-results/',
      '**/*.mjs',
      '**/*.cjs',
    ],
  },
  {
    files: ['**/*.ts'],
    extends: [...tseslint.configs.strictTypeChecked, ...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    languageOptions: {
      parserOptions: {
        // One program for all: the parts' own ones would each work out the types of core/ anew.
        project: 'tsconfig.lint.json',
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      // Taking a key out of an object names it.
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true, allowBoolean: true }],
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
      '@typescript-eslint/no-extraneous-class': ['error', { allowWithDecorator: true }],
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      '@typescript-eslint/unbound-method': 'off',
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'navigator',
        'localStorage',
        'indexedDB',
        'fetch',
        'performance',
        'Date',
        'crypto',
        'setTimeout',
      ],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'chance is an argument' }],
    },
  },
  {
    files: ['**/*.ts'],
    // It says why.
    ignores: ['core/shelf/index.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportAllDeclaration', message: 'an index.ts names what it hands on' },
        {
          selector: 'MemberExpression > Identifier.property[name=waitForTimeout]',
          message:
            'wait for what is to come: `settled`, `written`, an expectation; `goneOn` where time itself is tried',
        },
      ],
    },
  },
  {
    // What is played is asked of `core/rendition`, so that no two places can differ about it.
    files: ['app/**/*.ts'],
    ignores: ['app/**/*.spec.ts', 'app/testing/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            { name: '@core/kit', importNames: ['revoice'], message: 'ask rendition()' },
            { name: '@core/playback', importNames: ['programOf', 'playAt'], message: 'ask rendition()' },
            { name: '@core/drill', importNames: ['stagePattern'], message: 'ask rendition()' },
          ],
        },
      ],
    },
  },
  {
    files: ['**/*.spec.ts', 'e2e/**/*.ts', 'app/testing/**/*.ts'],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unnecessary-condition': 'off',
      '@typescript-eslint/restrict-template-expressions': 'off',
    },
  },
  { files: ['**/*.html'], extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility] },
  prettier,
  {
    // The formatter keeps code to the line; this keeps comments to it. Strings and examples in docstrings stay whole.
    files: ['**/*.ts'],
    rules: {
      'max-len': [
        'error',
        {
          code: 120,
          ignoreStrings: true,
          ignoreTemplateLiterals: true,
          ignoreRegExpLiterals: true,
          ignorePattern: '// =>|@param',
        },
      ],
    },
  },
);
