/** `npm run shots`: one picture of each main view from the demo studio, into docs/screenshots. */
import { ensureBrowser, ensureBuilt, ensureInstalled, must } from './prepare.mjs';

ensureInstalled();
ensureBuilt();
const browser = ensureBrowser();
if (!browser) {
  console.error('No Chromium was found and none could be installed. Set CHROMIUM to the path of one.');
  process.exit(1);
}
process.env.CHROMIUM = browser;
must('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts', '--project', 'shots']);
