import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test } from './studio.js';

async function violations(page: Page, level: 'wcag2aa' | 'wcag2aaa' = 'wcag2aa'): Promise<string[]> {
  const rules = ['wcag2a', 'wcag21a', 'wcag2aa', 'wcag21aa', ...(level === 'wcag2aaa' ? ['wcag2aaa'] : [])];
  const { violations: found } = await new AxeBuilder({ page }).withTags(rules).analyze();
  return found.flatMap(({ id, nodes }) =>
    nodes.map((node) => `${id}: ${node.html.slice(0, 160)} ${node.failureSummary ?? ''}`),
  );
}

for (const theme of ['waxwing', 'waxwing-dim']) {
  test(`the library passes axe in ${theme}`, async ({ page, studio }) => {
    await page.addInitScript((name) => localStorage.setItem('waxwing-theme', name), theme);
    for (const path of [
      '',
      '?q=knees+fall+in',
      '/goblet-squat',
      '/goblet-squat/edit',
      '/goblet-squat/history',
      '/goblet-squat/swap?reason=pain',
      '/goblet-squat/card',
      '/compare?ids=reverse-lunge,side-lunge,cross-behind-lunge',
      '/map?family=squat',
      '/figures?family=hinge',
      '/health',
      '/transfer',
      '/new',
    ]) {
      await page.goto(`${studio.address}/library${path}`);
      await page.getByRole('heading', { level: 1 }).waitFor();
      await expect(page.getByText(/^Fetching/)).toHaveCount(0);
      expect.soft(await violations(page), path).toEqual([]);
    }
  });

  test(`every other screen passes axe in ${theme}, the floor with AAA contrast`, async ({ page, studio }) => {
    await page.addInitScript((name) => localStorage.setItem('waxwing-theme', name), theme);
    const person = `/people/${await studio.clientId('Joaquim Peel')}`;
    for (const path of ['/', '/people', person, `${person}/edit`, '/sight', '/floor', '/review', '/studio']) {
      await page.goto(`${studio.address}${path}`);
      await page.getByRole('heading', { level: 1 }).waitFor();
      expect.soft(await violations(page), path).toEqual([]);
    }
    const plan = await studio.plan(page, ['Ilka Varga', 'Rasmus Tolle'], 45);
    expect.soft(await violations(page), 'a plan').toEqual([]);
    for (const path of [
      '/plan',
      '/plan/new',
      `${person}/today`,
      `${new URL(plan).pathname}/sheet/${await studio.clientId('Ilka Varga')}`,
    ]) {
      await page.goto(`${studio.address}${path}`);
      await page.getByRole('heading', { level: 1 }).waitFor();
      await expect(page.getByText(/^Fetching/)).toHaveCount(0);
      expect.soft(await violations(page), path).toEqual([]);
    }
    await page.getByRole('link', { name: 'Review' }).click();
    await page
      .getByRole('link', { name: /Osei Brandt/ })
      .first()
      .click();
    await page.getByText('Next time').first().waitFor();
    expect.soft(await violations(page), 'a review').toEqual([]);

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
}

for (const theme of ['waxwing', 'waxwing-contrast'])
  test(`the floor with four and a clock passes axe with AAA contrast in ${theme}`, async ({ page, studio }) => {
    await page.addInitScript((name) => localStorage.setItem('waxwing-theme', name), theme);
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
