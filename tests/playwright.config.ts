import { defineConfig } from '@playwright/test';
import { productOf } from './product.js';

/** Files that run beside the others when there are two lanes, about half of the time in all. */
const BESIDE = /(?:views|codebook|sheets|studies)\.spec\.ts/u;
/** What starts servers of its own, and measures: it has the machine for itself. */
const ALONE = /(?:holds|start)\.spec\.ts/u;

const isTwoLanes = process.env['LANES'] === '2';
const lanes = isTwoLanes ? [0, 1] : [0];
const inLane = (lane: number) => ({
  use: { baseURL: productOf(lane).address },
  metadata: productOf(lane),
  workers: 1,
});

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  // only what fails takes as long: a machine at a quarter of the speed must not
  timeout: 240_000,
  expect: { timeout: 40_000 },
  workers: lanes.length,
  forbidOnly: true,
  reporter: [['line'], ['json', { outputFile: '../test-results/playwright.json' }]],
  use: {
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
    ...(isTwoLanes
      ? [
          { name: 'product', testMatch: '*.spec.ts', testIgnore: [BESIDE, ALONE], ...inLane(0) },
          { name: 'product-beside', testMatch: BESIDE, ...inLane(1) },
          {
            name: 'product-alone',
            testMatch: ALONE,
            dependencies: ['product', 'product-beside'],
            ...inLane(0),
          },
        ]
      : [{ name: 'product', testMatch: '*.spec.ts', ...inLane(0) }]),
    // run by scripts/screenshots.sh, not by the tests
    { name: 'screenshots', testMatch: 'screenshots.ts', ...inLane(0) },
  ],
  // the product itself, by its own start command, with a data folder of the tests'
  webServer: lanes.map(productOf).map(({ address, dataFolder }) => ({
    command: 'bash ../scripts/start.sh',
    url: address,
    env: { PORT: new URL(address).port, DATA_FOLDER: dataFolder, LOG: 'off', BACKUP_HOURS: '0' },
    reuseExistingServer: false,
    timeout: 180_000,
    stdout: 'ignore' as const,
    stderr: 'pipe' as const,
    gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 15_000 },
  })),
});
