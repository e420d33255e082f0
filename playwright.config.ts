import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { defineConfig } from '@playwright/test';
import { CHROMIUMS } from './scripts/prepare.mjs';

/** Debian's Chromium, without a window of its own where there is one; a browser of one's own can be named with CHROMIUM. */
export const CHROMIUM = process.env['CHROMIUM'] ?? CHROMIUMS.find((path) => existsSync(path)) ?? CHROMIUMS[0]!;
/** A free port, found once: the processes of one run share it. */
const FREE =
  "const s=require('node:net').createServer().listen(0,'127.0.0.1',()=>{process.stdout.write(String(s.address().port));s.close()})";
export const PORT = Number((process.env['E2E_PORT'] ??= execFileSync(process.execPath, ['-e', FREE], { encoding: 'utf8' })));

export default defineConfig({
  testDir: 'e2e',
  testMatch: '**/*.e2e.ts',
  fullyParallel: true,
  workers: 2,
  // The longest take half a minute on a quiet machine; what hangs is found by the limit of each expectation.
  timeout: 180_000,
  // A machine busy with other work answers late; what fails once has failed.
  expect: { timeout: 30_000 },
  retries: 0,
  reporter: process.env['CI'] ? 'line' : 'list',
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'UTC',
    locale: 'en-GB',
    serviceWorkers: 'block',
    acceptDownloads: true,
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: CHROMIUM,
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
  },
  webServer: {
    command: 'npx tsx server/main.ts',
    cwd: fileURLToPath(new URL('.', import.meta.url)),
    url: `http://127.0.0.1:${PORT}`,
    env: { PORT: String(PORT) },
    reuseExistingServer: false,
    stdout: 'ignore',
  },
});
