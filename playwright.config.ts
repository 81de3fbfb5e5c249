// before anything that a test imports: runs made here are the same as in the browser
import './core/run/exact-math.ts';
import { defineConfig } from '@playwright/test';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CHROMIUM } from './e2e/chromium.ts';

const port = Number(process.env.E2E_PORT ?? 4699);
export const DATA = join(tmpdir(), `mossbell-e2e-${port}`);

export default defineConfig({
  testDir: 'e2e',
  // a loaded machine is slow, not wrong: what is asked for is that it comes, not when
  timeout: 240_000,
  expect: { timeout: 30_000 },
  workers: 2,
  fullyParallel: true,
  retries: process.env.CI ? 1 : 0,
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM
  },
  webServer: {
    command: `rm -rf ${DATA} && exec node --import tsx server.ts --demo`,
    url: `http://localhost:${port}`,
    env: { PORT: String(port), MOSSBELL_DATA: DATA, MOSSBELL_QUIET: '1' },
    reuseExistingServer: false
  }
});
