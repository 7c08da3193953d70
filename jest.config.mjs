/** Unit tests run as ES modules; TypeScript is only stripped here, its types are checked by `npm run types`. */
export default {
  testEnvironment: 'node',
  // Tests wait for what happens, never for a time: this only ends one that hangs, also on a machine that stands still for a while.
  testTimeout: 60_000,
  testMatch: ['<rootDir>/(core|server|web|standins|demo|bench)/**/*.test.{ts,tsx}'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'es6' },
      },
    ],
  },
  modulePathIgnorePatterns: ['<rootDir>/.*/dist/', '<rootDir>/var/'],
};
