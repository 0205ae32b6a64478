import { defineConfig } from '@playwright/test';

const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };

export default defineConfig({
  testDir: './tests',
  // Sizes run beside one another, each in a process of its own.
  outputDir: `../.data/test-results/${process.env.E2E_SIZE ?? 'all'}`,
  // Twice what the longest test takes on a busy machine.
  timeout: 180_000,
  expect: { timeout: 15_000 },
  workers: 1,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: process.env.E2E_REPORT ?? '../.data/playwright.json' }]],
  use: {
    baseURL: process.env.E2E_URL,
    // What waits for longer is told with its step, before the test as a whole ends.
    actionTimeout: 30_000,
    navigationTimeout: 60_000,
    timezoneId: 'Europe/London',
    locale: 'en-GB',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  projects: [
    { name: 'phone', use: { viewport: PHONE, hasTouch: true } },
    { name: 'wide', use: { viewport: WIDE } },
  ],
});
