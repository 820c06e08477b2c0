import { defineConfig } from '@playwright/test';
import { address, dataFolder } from './product.js';

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  timeout: 60_000,
  expect: { timeout: 10_000 },
  workers: 1,
  forbidOnly: true,
  reporter: [['line'], ['json', { outputFile: '../test-results/playwright.json' }]],
  use: {
    baseURL: address,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    launchOptions: {
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      chromiumSandbox: false, // root cannot use Chromium's sandbox
      args: [
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  projects: [
    { name: 'product', testMatch: '*.spec.ts' },
    // run by scripts/screenshots.sh, not by the tests
    { name: 'screenshots', testMatch: 'screenshots.ts' },
  ],
  // the product itself, by its own start command, with a data folder of the tests'
  webServer: {
    command: 'bash ../scripts/start.sh',
    url: address,
    env: { PORT: new URL(address).port, DATA_FOLDER: dataFolder, LOG: 'off' },
    reuseExistingServer: false,
    timeout: 180_000,
    stdout: 'ignore',
    stderr: 'pipe',
    gracefulShutdown: { signal: 'SIGTERM', timeout: 15_000 },
  },
});
