/** A studio in which the figure is filmed: a browser on the page that draws and reads it. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

import { chromium } from '@playwright/test';
import { build, preview } from 'vite';

import { ensureBrowser, ROOT } from './prepare.mjs';

const CONFIG = join(ROOT, 'web/film/vite.config.ts');

/**
 * Opens it, does the work, and closes it again.
 * @param {(page: import('@playwright/test').Page) => Promise<void>} work
 */
export async function withFilm(work) {
  const executablePath = ensureBrowser();
  if (!executablePath) throw new Error('Filming needs a Chromium.');
  await build({ configFile: CONFIG, logLevel: 'error' });
  const server = await preview({ configFile: CONFIG, logLevel: 'error', preview: { port: 0, host: '127.0.0.1' } });
  const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu'] });
  try {
    const page = await browser.newPage();
    page.on('pageerror', (error) => console.error(error.message));
    await page.goto(server.resolvedUrls?.local[0] ?? '');
    await page.waitForFunction(() => 'film' in globalThis);
    await work(page);
  } finally {
    await browser.close();
    await server.close();
  }
}

/** @param {string} name */
export const readJson = (name) => JSON.parse(readFileSync(join(ROOT, name), 'utf8'));
