import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['packages/*/src/**/*.test.ts', 'apps/*/src/**/*.test.{ts,tsx}', 'scripts/**/*.test.mjs'],
    globalSetup: ['apps/server/src/testing/global-setup.ts'],
    testTimeout: 30_000,
  },
});
