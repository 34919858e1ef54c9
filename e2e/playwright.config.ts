import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  workers: 2,
  // A slow machine is not a fault: a journey fails by what it sees, and only a hang runs into this.
  timeout: 240_000,
  // One that passes only the second time hides a race.
  retries: 0,
  expect: { timeout: 15_000 },
  forbidOnly: true,
  reporter: 'list',
  use: {
    actionTimeout: 45_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
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
  projects: [
    { name: 'journeys', testMatch: '*.test.ts' },
    { name: 'shots', testMatch: 'shots.ts' },
  ],
});
