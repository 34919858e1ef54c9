import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';

import { expect, test } from './studio.js';

const OTHER_THEMES = ['waxwing-dim', 'waxwing-contrast'];

/** What axe finds on a screen: everything in the light theme, and what the other themes can change, which is contrast. */
async function violations(page: Page, level: 'wcag2aa' | 'wcag2aaa' = 'wcag2aa'): Promise<string[]> {
  const enhanced = level === 'wcag2aaa';
  const rules = ['wcag2a', 'wcag21a', 'wcag2aa', 'wcag21aa', ...(enhanced ? ['wcag2aaa'] : [])];
  const found = await foundBy(page, new AxeBuilder({ page }).withTags(rules), 'waxwing');
  // A colour on its way to another one is neither.
  await page.emulateMedia({ reducedMotion: 'reduce' });
  for (const theme of OTHER_THEMES) {
    await wear(page, theme);
    const contrast = new AxeBuilder({ page }).withRules(enhanced ? 'color-contrast-enhanced' : 'color-contrast');
    found.push(...(await foundBy(page, contrast, theme)));
  }
  await wear(page, 'waxwing');
  await page.emulateMedia({ reducedMotion: 'no-preference' });
  return found;
}

async function foundBy(page: Page, axe: AxeBuilder, theme: string): Promise<string[]> {
  const { violations: found } = await axe.analyze();
  const told = found.flatMap(({ id, nodes }) =>
    nodes.map((node) => `${theme}: ${id}: ${node.html.slice(0, 160)} ${node.failureSummary ?? ''}`),
  );
  return [...told, ...(await unseen(page)).map((words) => `${theme}: in the colour of its ground: ${words}`)];
}

/** Words in the very colour that they stand on: axe does not judge what lies over a drawing. */
const unseen = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const groundOf = (element: Element | null): string => {
      for (let at = element; at; at = at.parentElement) {
        const { backgroundColor, backgroundImage } = getComputedStyle(at);
        if (backgroundImage !== 'none') return backgroundImage;
        if (!/^(transparent|rgba\(0, 0, 0, 0\))$/.test(backgroundColor)) return backgroundColor;
      }
      return '';
    };
    const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    const found: string[] = [];
    for (let node = walk.nextNode(); node; node = walk.nextNode()) {
      const element = node.parentElement;
      if (!node.textContent?.trim() || !element?.checkVisibility() || element.closest('svg, option, .sr-only'))
        continue;
      if (getComputedStyle(element).color === groundOf(element)) found.push(node.textContent);
    }
    return found;
  });

const wear = (page: Page, theme: string): Promise<void> =>
  page.evaluate((name) => {
    document.documentElement.dataset.theme = name;
  }, theme);

test.beforeEach(({ page }) => page.addInitScript(() => localStorage.setItem('waxwing-theme', 'waxwing')));

/** Opens screens one after the other, and looks each over. */
async function look(page: Page, address: string, paths: readonly string[]): Promise<void> {
  for (const path of paths) {
    await page.goto(`${address}${path}`);
    await page.getByRole('heading', { level: 1 }).waitFor();
    await expect(page.getByText(/^Fetching/)).toHaveCount(0);
    expect.soft(await violations(page), path).toEqual([]);
  }
}

test('the library passes axe', async ({ page, studio }) => {
  await look(page, studio.address, [
    '/library',
    '/library?q=knees+fall+in',
    '/library/goblet-squat',
    '/library/goblet-squat/history',
    '/library/goblet-squat/swap?reason=pain',
    '/library/goblet-squat/card',
    '/library/compare?ids=reverse-lunge,side-lunge,cross-behind-lunge',
  ]);
});

test('what is written and kept of the library passes axe', async ({ page, studio }) => {
  await look(page, studio.address, [
    '/library/goblet-squat/edit',
    '/library/map?family=squat',
    '/library/figures?family=hinge',
    '/library/health',
    '/library/transfer',
    '/library/new',
  ]);
});

test('the day, the people and the studio pass axe', async ({ page, studio }) => {
  const person = `/people/${await studio.clientId('Joaquim Peel')}`;
  await look(page, studio.address, [
    '/',
    '/people',
    person,
    `${person}/edit`,
    `${person}/today`,
    '/sight',
    '/floor',
    '/studio',
  ]);
});

test('plans and reviews pass axe', async ({ page, studio }) => {
  const plan = await studio.plan(page, ['Ilka Varga', 'Rasmus Tolle'], 45);
  expect.soft(await violations(page), 'a plan').toEqual([]);
  await look(page, studio.address, [
    '/plan',
    '/plan/new',
    `${new URL(plan).pathname}/sheet/${await studio.clientId('Ilka Varga')}`,
    '/review',
  ]);
  await page
    .getByRole('link', { name: /Osei Brandt/ })
    .first()
    .click();
  await page.getByText('Next time').first().waitFor();
  expect.soft(await violations(page), 'a review').toEqual([]);
});

test('the floor and all of its sheets pass axe with AAA contrast', async ({ page, studio }) => {
  await studio.openFloor(page, 'Osei Brandt', 'Romanian deadlift');
  expect.soft(await violations(page, 'wcag2aaa'), 'the floor').toEqual([]);
  await page.getByRole('button', { name: 'Weights drift away' }).click();
  await page.getByRole('group', { name: 'Did it work?' }).waitFor();
  expect.soft(await violations(page, 'wcag2aaa'), 'a correction').toEqual([]);
  await page.getByRole('button', { name: 'Back rounds under load' }).click();
  await page.getByRole('alert').waitFor();
  expect.soft(await violations(page, 'wcag2aaa'), 'a stop').toEqual([]);
  for (const sheet of ['Swap', 'Pain', 'Next', 'Order of the session', 'Log', 'Sound', 'Keys', 'Emergency']) {
    await page.getByRole('button', { name: sheet, exact: true }).click();
    await page.getByRole('dialog').waitFor();
    expect.soft(await violations(page, 'wcag2aaa'), sheet).toEqual([]);
    await page.keyboard.press('Escape');
  }
});

test('the floor with four and a clock passes axe with AAA contrast', async ({ page, studio }) => {
  const lines = ['hip-thrust', 'push-up', 'forearm-plank'].map((movementId) => ({ movementId, rest: 20 }));
  const names = ['Osei Brandt', 'Ilka Varga', 'Dagny Holt'];
  await studio.openPlan(page, names, [{ kind: 'circuit', workSeconds: 5, lines }]);
  await page.getByRole('button', { name: 'Start the clock' }).click();
  await page.getByRole('button', { name: /^Log \d/ }).waitFor();
  expect.soft(await violations(page, 'wcag2aaa'), 'the change of stations').toEqual([]);
  await page.getByRole('button', { name: 'Levels' }).click();
  await page.getByRole('dialog').waitFor();
  expect.soft(await violations(page, 'wcag2aaa'), 'three levels').toEqual([]);
  await page.goto(`${page.url()}/wall`);
  await page.getByRole('timer').waitFor();
  expect.soft(await violations(page, 'wcag2aaa'), 'the wall').toEqual([]);
});
