const swc = [
  '<rootDir>/tools/jest/core-transformer.cjs',
  {
    jsc: { target: 'es2022', parser: { syntax: 'typescript', decorators: true } },
    module: { type: 'commonjs' },
    sourceMaps: 'inline',
  },
];
/** This folder as a part of a pattern: whatever its name holds. */
const here = import.meta.dirname.replace(/[.*+?^${}()|[\]\\]/gu, '\\$&');
const alias = { '^@core/(.*)$': '<rootDir>/core/$1' };

/** @type {import('jest').Config} */
export default {
  // It is there for a test that hangs. Being slow, six times over on a machine that does other things beside, is no fault.
  testTimeout: 180_000,
  // Half of them, as is usual, would leave one of two idle.
  maxWorkers: '100%',
  projects: [
    {
      displayName: 'core',
      testEnvironment: 'node',
      roots: ['<rootDir>/core', '<rootDir>/demo', '<rootDir>/server', '<rootDir>/tools'],
      testMatch: ['**/*.spec.ts'],
      setupFiles: ['<rootDir>/tools/jest/fixed-seed.cjs'],
      transform: { '^.+\\.(t|j)s$': swc },
      moduleNameMapper: alias,
    },
    {
      displayName: 'app',
      preset: 'jest-preset-angular',
      roots: ['<rootDir>/app'],
      testMatch: ['**/*.spec.ts'],
      setupFiles: ['<rootDir>/tools/jest/fixed-seed.cjs'],
      setupFilesAfterEnv: ['<rootDir>/app/testing/setup-jest.ts'],
      moduleNameMapper: { ...alias, '/spawn-[a-z]+$': '<rootDir>/app/testing/spawn.ts' },
      transform: {
        [`^${here}/core/.+\\.ts$`]: swc,
        '^.+\\.(ts|js|mjs|html|svg)$': [
          '<rootDir>/tools/jest/app-transformer.cjs',
          { tsconfig: '<rootDir>/tsconfig.spec.json', stringifyContentPathRegex: '\\.(html|svg)$' },
        ],
      },
      transformIgnorePatterns: [
        'node_modules/(?!(.*\\.mjs$|d3-.*|internmap|@primeuix|primeng|comlink|date-fns|tinykeys|@sinclair))',
      ],
    },
  ],
};
