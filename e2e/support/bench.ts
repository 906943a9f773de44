import { test as base, expect, type Page } from '@playwright/test';
import type { UnitResource, WriteAnswer } from '@zemble/contract';
import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
// @ts-expect-error the scripts are plain JavaScript, so that they run before anything is installed
import { Cluster, throwawayFolder } from '../../scripts/lib/postgres.mjs';
// @ts-expect-error as above
import { choosePort, startServer } from '../../scripts/lib/server.mjs';

/** The real server on a real PostgreSQL in a throwaway folder, one for each worker. */
export interface Bench {
  readonly url: string;
  readonly databaseUrl: string;
  stopServer(): Promise<void>;
  /** Starts it again; with another build of the page, where a folder is named. */
  startServer(webRoot?: string): Promise<void>;
}

const FIRST_PORT = 4810;

export const test = base.extend<{ unit: string }, { bench: Bench }>({
  bench: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use, info) => {
      const folder: string = throwawayFolder();
      const cluster = await Cluster.open({ folder });
      const port: number = await choosePort(FIRST_PORT + 20 * info.parallelIndex);
      let server = startServer({ databaseUrl: cluster.url, port, demo: 'first' });
      await server.listening;
      await use({
        url: `http://127.0.0.1:${port}`,
        databaseUrl: cluster.url,
        async stopServer() {
          await server.stop();
        },
        async startServer(webRoot) {
          server = startServer({ databaseUrl: cluster.url, port, demo: 'none', webRoot });
          await server.listening;
        },
      });
      await server.stop();
      await cluster.stop();
      rmSync(folder, { recursive: true, force: true });
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ bench }, use) => use(bench.url),
});

export { expect };

/** Waits until the server has acknowledged everything entered. */
export async function saved(page: Page): Promise<void> {
  await expect(page.locator('.saving-saving')).toHaveAttribute('data-state', 'saved');
}

/** Waits until all that was entered while the server is away is kept in this browser: the page may then go. */
export async function keptHere(page: Page): Promise<void> {
  await expect(page.locator('.saving-saving')).toHaveAttribute('data-state', 'waiting');
}

/** A server on a database of its own that other machines reach, so that it asks for names; nobody is known yet. */
export const lanTest = base.extend<{ lan: string }>({
  // eslint-disable-next-line no-empty-pattern
  lan: async ({}, use, info) => {
    const folder: string = throwawayFolder();
    const cluster = await Cluster.open({ folder });
    const port: number = await choosePort(FIRST_PORT + 200 + 20 * info.parallelIndex);
    const server = startServer({ databaseUrl: cluster.url, port, demo: 'first', lan: true });
    await server.listening;
    await use(`http://localhost:${port}`);
    await server.stop();
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  },
});

/** Puts a new unit on the bench through the dialog and opens it. */
export async function newUnit(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'New unit' }).first().click();
  await page.getByLabel('Name').fill(name);
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await expect(page.getByLabel('Type a part')).toBeVisible();
}

/** Types lines of the parts sheet, each with Enter. */
export async function typeParts(page: Page, lines: readonly string[], until = saved): Promise<void> {
  const field = page.getByLabel('Type a part');
  for (const line of lines) {
    await field.fill(line);
    await field.press('Enter');
    await expect(field).toHaveValue('');
  }
  await until(page);
}

/** Opens a unit from the bench, and one of its stages. */
export async function openUnit(page: Page, name: RegExp, stage?: Stage): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name }).first().click();
  if (stage) await goTo(page, stage);
}

/** Puts a copy of a unit on the bench under a name of its own, so that no other journey meets it, and opens it in Measure. */
export async function copyInMeasure(page: Page, name: RegExp): Promise<UnitResource> {
  const { units } = (await (await page.request.get('/api/v1/units')).json()) as {
    units: { id: string; name: string }[];
  };
  const { id } = units.find((u) => name.test(u.name))!;
  const file = (await (await page.request.get(`/api/v1/units/${id}/file`)).json()) as {
    unit: object;
    intake?: object;
  };
  // As it came: what another journey found in it meanwhile stays there.
  const intake = { ...file.intake, checks: {}, convicted: [], damage: [] };
  const text = JSON.stringify({
    ...file,
    intake,
    evidence: [],
    unit: { ...file.unit, name: `Copy ${randomUUID()}` },
  });
  const answer = await page.request.post('/api/v1/units/import', {
    headers: { 'idempotency-key': randomUUID() },
    data: { text },
  });
  const { unitId } = (await answer.json()) as WriteAnswer;
  const copy = (await (await page.request.get(`/api/v1/units/${unitId}`)).json()) as UnitResource;
  await page.goto(`/units/${unitId}/measure`);
  return copy;
}

/** A reading just as marked, as it is typed at the bench. */
export function asMarked(unit: UnitResource, ref: string): string {
  const { kind, marked } = unit.parts.find((p) => p.part.ref === ref)!.part;
  if (typeof marked !== 'number') throw new Error(`${ref} has no marking`);
  return kind === 'capacitor' ? `${Number((marked * 1e9).toPrecision(6))}n` : `${marked}R`;
}

/** The field that everything is typed into. */
export const readingField = (page: Page) => page.getByRole('textbox', { name: /^Reading of/ });

type Stage = 'Intake' | 'Trace' | 'Find' | 'Measure' | 'Rework' | 'Build' | 'Log';

/** One stage by its tab. */
export async function goTo(page: Page, stage: Stage): Promise<void> {
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: stage }).click();
}

/** A booster of one transistor, as a tinkerer types it. */
export const BOOSTER = [
  'V1 9V vcc 0',
  'G1 10mV 1kHz in 0 resistance=10k',
  'C1 100n in b1',
  'R1 470k vcc b1',
  'R2 68k b1 0',
  'Q1 2N3904 c1 b1 e1',
  'R3 10k vcc c1',
  'R4 820 10% e1 0',
  'C2 4u7 polarised c1 out',
  'R5 100k out 0',
] as const;

/** Opens the dialog for a new readout and defines a gain from in to out. */
export async function addGain(page: Page, want = ''): Promise<void> {
  await page
    .getByRole('button', { name: /Add the first|Add a readout/ })
    .first()
    .click();
  const dialog = page.getByRole('dialog');
  for (const [label, net] of [
    ['From net', 'in'],
    ['To net', 'out'],
  ] as const) {
    await dialog.getByLabel(label).fill(net);
    // The list follows what is typed a moment later.
    await expect(
      page.locator('.ant-select-dropdown:visible .ant-select-item-option-active', { hasText: net }),
    ).toBeVisible();
    await dialog.getByLabel(label).press('Enter');
  }
  await dialog.getByLabel('Wanted').fill(want);
  await dialog.getByLabel('Name').fill('Gain');
  await dialog.getByRole('button', { name: 'Add the readout' }).click();
  await expect(dialog).toBeHidden();
  await saved(page);
}

/** The text of a readout's cell: marked, found or planned. */
export const readoutCell = (page: Page, name: string, layer: 'marked' | 'found' | 'planned') =>
  page
    .getByRole('region', { name: 'Readouts' })
    .getByRole('row')
    .filter({ hasText: name })
    .locator('td')
    .nth(2 + ['marked', 'found', 'planned'].indexOf(layer));

/** Reaches something by the palette, without a mouse: "Part: V1", "Net: mic", "Go to the drawer". */
export async function reach(page: Page, words: string): Promise<void> {
  await expect(page.getByRole('navigation', { name: 'Stages' })).toBeVisible();
  await page.keyboard.press('Control+k');
  const field = page.getByRole('combobox', { name: 'Go to anything' });
  await field.fill(words);
  await expect(page.getByRole('option', { name: words }).first()).toBeVisible();
  await field.press('Enter');
  await expect(field).toBeHidden();
}
