import { rmSync } from 'node:fs';
// @ts-expect-error the scripts are plain JavaScript, so that they run before anything is installed
import { Cluster, throwawayFolder } from '../scripts/lib/postgres.mjs';
// @ts-expect-error as above
import { choosePort, startServer } from '../scripts/lib/server.mjs';
import { copyInMeasure, expect, readingField, test } from './support/bench.ts';

test('an entry through one server process shows at once on a page of another', async ({
  page,
  bench,
  browser,
}) => {
  const port: number = await choosePort(5030);
  const second = startServer({ databaseUrl: bench.databaseUrl, port, demo: 'none' });
  await second.listening;
  const unit = await copyInMeasure(page, /^Lark/);
  const other = await (await browser.newContext()).newPage();
  await other.goto(`http://127.0.0.1:${port}/units/${unit.id}/measure`);
  await expect(readingField(other)).toBeVisible();
  await readingField(page).fill('R107 90k');
  await readingField(page).press('Enter');
  await expect(other.getByRole('row', { name: /^Measure R107/ })).toContainText('90 kΩ');
  await second.stop();
});

test('three servers that start at once on a new database make one bench', async () => {
  const folder: string = throwawayFolder();
  const cluster = await Cluster.open({ folder });
  const ports: number[] = [];
  for (let i = 0; i < 3; i += 1) ports.push(await choosePort(5080 + 10 * i));
  const servers = ports.map((port) => startServer({ databaseUrl: cluster.url, port, demo: 'first' }));
  const urls: string[] = await Promise.all(servers.map((s) => s.listening as Promise<string>));
  const lists = await Promise.all(
    urls.map(
      async (url) => ((await (await fetch(`${url}/api/v1/units`)).json()) as { units: object[] }).units,
    ),
  );
  expect(lists[0]!.length).toBeGreaterThan(3);
  expect(lists[1]).toEqual(lists[0]);
  expect(lists[2]).toEqual(lists[0]);
  await Promise.all(servers.map((s) => s.stop() as Promise<void>));
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
});
