import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, goTo, openUnit, test } from './support/bench.ts';

async function expectNoSeriousViolation(page: Page, where: string): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
  expect(
    serious.map(
      (v) =>
        `${where}: ${v.id}: ${v.nodes
          .map((n) => n.target.join(' '))
          .slice(0, 3)
          .join(' | ')}`,
    ),
  ).toEqual([]);
}

for (const scheme of ['light', 'dark'] as const) {
  test(`no screen has a serious accessibility violation, ${scheme}`, async ({ browser, bench }) => {
    // Every screen is loaded and looked through.
    test.slow();
    const context = await browser.newContext({
      colorScheme: scheme,
      reducedMotion: 'reduce',
      baseURL: bench.url,
      viewport: { width: 1280, height: 800 },
    });
    const page = await context.newPage();
    await page.goto('/');
    await expect(page.getByRole('link', { name: /Lark 3/ }).first()).toBeVisible();
    await expectNoSeriousViolation(page, 'bench');
    await page.getByRole('link', { name: 'Drawer' }).click();
    await expect(page.getByLabel('Count of 22 pF in B1')).toBeVisible();
    await expectNoSeriousViolation(page, 'Drawer');
    await page.getByRole('link', { name: 'Desk' }).click();
    await expect(page.getByRole('region', { name: 'Levels' })).toBeVisible();
    await expectNoSeriousViolation(page, 'Desk');
    await page.getByRole('link', { name: 'Bench' }).click();
    await page.getByRole('button', { name: 'New unit' }).first().click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await expectNoSeriousViolation(page, 'new unit');
    await page.getByRole('button', { name: 'Cancel' }).click();
    await page
      .getByRole('link', { name: /Lark 3/ })
      .first()
      .click();
    for (const stage of ['Trace', 'Measure', 'Rework', 'Log'] as const) {
      await goTo(page, stage);
      await expect(page.getByRole('figure')).toBeVisible();
      await expectNoSeriousViolation(page, stage);
    }
    await openUnit(page, /Wren talkback/, 'Intake');
    await expect(page.getByRole('region', { name: 'Complaint', exact: true })).toBeVisible();
    await expectNoSeriousViolation(page, 'Intake');
    await goTo(page, 'Find');
    await expect(page.locator('.find-question-words')).toBeVisible();
    await expectNoSeriousViolation(page, 'Find');
    await goTo(page, 'Trace');
    await page.getByText('Photos', { exact: true }).click();
    await expect(page.getByRole('img', { name: /^Photo/ })).toBeVisible();
    await page.getByText('Path', { exact: true }).click();
    await expectNoSeriousViolation(page, 'photos and path');
    await page.getByText('Beeps', { exact: true }).click();
    await expect(page.getByLabel('Type a part or what beeps')).toBeVisible();
    await expectNoSeriousViolation(page, 'photos and beeps');
    await openUnit(page, /Drover/, 'Build');
    for (const view of ['Board', 'Wiring', 'Parts', 'Fit', 'Steps'] as const) {
      await page.getByRole('radiogroup', { name: 'What is built' }).getByText(view).click();
      await expect(page.getByRole('radio', { name: view })).toBeChecked();
      await expectNoSeriousViolation(page, `Build, ${view}`);
    }
    await page.getByRole('button', { name: 'Add a readout' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await expectNoSeriousViolation(page, 'readout');
    await context.close();
  });
}
