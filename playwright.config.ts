import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './e2e/chromium';

/** Another port lets two suites run beside each other. */
const PORT = Number(process.env['E2E_PORT'] ?? 4630);

export default defineConfig({
  testDir: 'e2e',
  timeout: 120_000,
  expect: { timeout: 20_000 },
  fullyParallel: true,
  workers: 2,
  retries: 0,
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    acceptDownloads: true,
    serviceWorkers: 'block',
    launchOptions: CHROMIUM,
    trace: 'retain-on-failure',
  },
  webServer: {
    command: `${process.execPath} --import tsx server/main.ts`,
    env: { PORT: String(PORT) },
    url: `http://127.0.0.1:${PORT}/`,
    reuseExistingServer: false,
  },
});
