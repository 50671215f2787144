import { defineConfig } from '@playwright/test';
import { existsSync } from 'node:fs';
import { CHROMIUM } from './e2e/chromium';

const port = Number(process.env['E2E_PORT'] ?? 4310);

export default defineConfig({
  testDir: 'e2e',
  timeout: 120_000,
  expect: { timeout: 15_000 },
  // One more than there are processors: many tests wait for a bar to be over.
  workers: 3,
  fullyParallel: true,
  retries: 0,
  reporter: process.env['E2E_JSON'] ? [['list'], ['json', { outputFile: process.env['E2E_JSON'] }]] : [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    // Keeping the application for use without a network is a test of its own; in all others it would only take time.
    serviceWorkers: 'block',
    launchOptions: {
      ...(existsSync(CHROMIUM) ? { executablePath: CHROMIUM } : {}),
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--disable-dev-shm-usage',
        '--autoplay-policy=no-user-gesture-required',
      ],
    },
  },
  webServer: {
    command: 'node dist/server/main.mjs',
    env: { PORT: String(port) },
    url: `http://127.0.0.1:${port}/healthz`,
    reuseExistingServer: false,
  },
});
