import { defineConfig } from 'vitest/config';

/** No test stands near it: one that needs long says so itself. */
const LONGEST_MS = 120_000;

/** Tests of pure modules share them: what one file has imported the next finds there. */
const shared = { isolate: false, testTimeout: LONGEST_MS } as const;

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          ...shared,
          name: 'core',
          include: ['packages/{core,contract,demo}/src/**/*.test.ts'],
        },
      },
      {
        test: {
          ...shared,
          name: 'server',
          include: ['apps/server/src/**/*.test.ts'],
          globalSetup: ['apps/server/src/testing/global-setup.ts'],
          hookTimeout: LONGEST_MS,
        },
      },
      {
        test: {
          name: 'command',
          include: ['packages/cli/src/**/*.test.ts', 'scripts/**/*.test.mjs'],
          testTimeout: LONGEST_MS,
        },
      },
      {
        test: { name: 'web', include: ['apps/web/src/**/*.test.{ts,tsx}'], testTimeout: LONGEST_MS },
      },
    ],
  },
});
