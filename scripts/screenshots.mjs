import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { spawnSync } from 'node:child_process';
import { ensureBuilt } from './lib/build.mjs';
import { ensureDebian, ensurePackages, requireNode } from './lib/install.mjs';
import { Cluster, throwawayFolder } from './lib/postgres.mjs';
import { main, ROOT } from './lib/root.mjs';
import { choosePort, startServer } from './lib/server.mjs';

const ARGUMENTS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** Pictures of the main views from the demo data, into docs/screenshots. */
await main(async () => {
  requireNode();
  ensurePackages();
  ensureDebian('chromium', () => spawnSync('chromium', ['--version']).status === 0, 'Chromium');
  ensureBuilt();
  const folder = throwawayFolder();
  const cluster = await Cluster.open({ folder });
  const server = startServer({ databaseUrl: cluster.url, port: await choosePort(4890), demo: 'first' });
  try {
    await takeAll(await server.listening);
  } finally {
    await server.stop();
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});

async function takeAll(address) {
  const { chromium } = await import('@playwright/test');
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ARGUMENTS });
  try {
    await takeEach(browser, address);
  } finally {
    await browser.close();
  }
}

async function takeEach(browser, address) {
  const open = async (options) => {
    const context = await browser.newContext({
      viewport: { width: 1280, height: 800 },
      reducedMotion: 'reduce',
      baseURL: address,
      ...options,
    });
    return context.newPage();
  };
  const take = async (page, name) => {
    await page.evaluate(() => document.fonts.ready);
    await page.waitForFunction(
      () => document.querySelector('.zb-chart svg, .bench-bench, .readouts-dock-folded') !== null,
    );
    // The circuit is drawn in a worker.
    await page.waitForFunction(
      () =>
        document.querySelector('section[aria-label="Circuit"]') === null ||
        document.querySelector('[aria-label^="Circuit of"]') !== null,
    );
    await page.screenshot({ path: join(ROOT, 'docs/screenshots', `${name}.png`) });
  };
  const stage = (page, word) =>
    page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: word }).click();
  const unit = (page, name) => page.getByRole('link', { name }).first();

  const page = await open();
  await page.goto('/');
  await unit(page, /Lark 3/).waitFor();
  await take(page, 'bench');
  await unit(page, /Lark 3/).click();
  await stage(page, 'Trace');
  await take(page, 'trace');
  await stage(page, 'Measure');
  await page.getByLabel('Reading of R102').fill('238k');
  await take(page, 'measure');
  await stage(page, 'Rework');
  await page.getByRole('button', { name: 'Find values' }).click();
  await page
    .getByRole('button', { name: /R104.*R109/ })
    .first()
    .click();
  await page.locator('.rework-proposal-on').waitFor();
  await take(page, 'rework');
  await page.goto('/drawer');
  await page.getByLabel('Count of 22 pF in B1').waitFor();
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', 'drawer.png') });
  await page.goto('/desk');
  await page.getByRole('region', { name: 'Levels' }).waitFor();
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', 'desk.png') });
  await page.goto('/');
  await unit(page, /Plover/).click();
  await stage(page, 'Rework');
  await page.locator('[data-ref=V1]').first().click();
  await page.getByRole('button', { name: 'RC cell in the supply' }).click();
  await page.getByText(/V of 12 V are left/).waitFor();
  await take(page, 'ways');
  await page.goto('/');
  await unit(page, /Lark 3/).click();
  await stage(page, 'Log');
  await page.getByLabel('Note').waitFor();
  await take(page, 'log');

  await page.goto('/');
  await unit(page, /Wren/).click();
  await stage(page, 'Intake');
  await page.getByRole('region', { name: 'First checks' }).waitFor();
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', 'intake.png') });
  await stage(page, 'Trace');
  await page.getByRole('radiogroup', { name: 'What is traced' }).getByText('Path').click();
  await page.getByRole('group', { name: /^Path of/ }).waitFor();
  await take(page, 'path');
  await stage(page, 'Measure');
  await page.getByRole('radiogroup', { name: 'Circuit or board' }).getByText('Board').click();
  await page.getByText('Voltages', { exact: true }).click();
  await page.getByRole('region', { name: 'Board' }).getByText('10.8 V').waitFor();
  await take(page, 'measure-board');
  await stage(page, 'Find');
  const asks = page.locator('.find-question-words');
  const test = async (question, key) => {
    await page.getByRole('button', { name: question }).click();
    await asks.getByText(question).waitFor();
    await page.keyboard.press(key);
    await page.locator('.saving-saving[data-state=saved]').waitFor();
  };
  await page.locator('.zb-suspects').waitFor();
  await test('Is the supply right at Supply after the reservoir?', 'g');
  await test('Is the supply right at Filtered supply?', 'n');
  await page.locator('.path-drawing-share-bar').first().waitFor();
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', 'find.png') });
  await page.locator('.path-drawing-block-node', { hasText: 'Supply filter' }).click();
  await page.getByText('Photo', { exact: true }).click();
  await page.getByRole('img', { name: /^Photo/ }).waitFor();
  const volts = page.getByRole('textbox', { name: 'Voltage at vf' });
  await volts.fill('0.002');
  await volts.press('Enter');
  await page.locator('.zb-suspects tbody tr', { hasText: 'C2 short' }).waitFor();
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', 'find-parts.png') });

  const sentence = page.getByRole('region', { name: 'Readouts' }).getByRole('status');
  const settled = (name) =>
    page
      .getByRole('row')
      .filter({ hasText: name })
      .getByText(/[0-9]\s(Hz|mHz|dB)/)
      .nth(2)
      .waitFor();
  await page.goto('/');
  await unit(page, /Heron/).click();
  await page.getByText('Stability', { exact: true }).click();
  await sentence.getByText(/oscillates/).waitFor();
  await settled('Rate over the knob');
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', 'oscillator.png') });

  await page.goto('/');
  await unit(page, /Dunlin/).click();
  await stage(page, 'Trace');
  await page.getByRole('radiogroup', { name: 'What is traced' }).getByText('Beeps').click();
  await page.getByRole('radiogroup', { name: 'What is seen beside it' }).getByText('Photos').click();
  await page.getByRole('button', { name: 'Pad U1A.plus' }).click();
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', 'beeps.png') });

  await page.goto('/');
  await unit(page, /Drover/).click();
  await stage(page, 'Rework');
  const change = page.getByLabel('Type a change');
  await change.fill('Fuller bass: C3 -> 220n');
  await change.press('Enter');
  await page.getByRole('button', { name: 'Fuller bass', exact: true }).waitFor();
  await stage(page, 'Build');
  const atHand = page.getByRole('group', { name: 'The step at hand' });
  for (const words of ['Photograph', 'Mark the wires', 'Loosen', 'Take C3', 'Clear the holes', 'Fit C3']) {
    await atHand.getByRole('button', { name: /^Done/ }).click();
    await atHand.getByText(words).first().waitFor();
  }
  await take(page, 'build-steps');
  await page.getByRole('region', { name: 'Steps' }).getByText('Board', { exact: true }).click();
  await page.getByRole('button', { name: /^U1, / }).waitFor();
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', 'build-board.png') });

  const dim = await open({ colorScheme: 'dark' });
  await dim.goto('/');
  await unit(dim, /Lark 3/).click();
  await stage(dim, 'Measure');
  await dim.getByRole('textbox', { name: /^Reading of/ }).waitFor();
  await take(dim, 'measure-dim');

  const phone = await open({ viewport: { width: 390, height: 844 } });
  await phone.goto('/');
  await unit(phone, /Lark 3/).click();
  await stage(phone, 'Measure');
  await phone.getByRole('textbox', { name: /^Reading of/ }).waitFor();
  await take(phone, 'measure-phone');
}
