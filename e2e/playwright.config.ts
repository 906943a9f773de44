import { defineConfig } from '@playwright/test';
import { execFileSync } from 'node:child_process';

const chromium = execFileSync('sh', ['-c', 'command -v chromium'], { encoding: 'utf8' }).trim();

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  workers: 2,
  fullyParallel: true,
  timeout: 90_000,
  expect: { timeout: 15_000 },
  reporter: [['list'], ['json']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: chromium,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
    trace: 'off',
  },
});
