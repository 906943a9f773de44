import type { UnitResource } from '@zemble/contract';
import { randomUUID } from 'node:crypto';
import { expect, newUnit, saved, test } from './support/bench.ts';

test('what a browser kept under the former name is sent, and its settings go on', async ({ page }) => {
  await newUnit(page, 'From before');
  const unitId = /units\/([0-9a-f-]+)/.exec(page.url())![1]!;
  await saved(page);
  await page.evaluate(
    ({ unitId, key }) =>
      new Promise<void>((resolve, reject) => {
        localStorage.removeItem('zemble.mode');
        localStorage.setItem('halfsplit.mode', 'dim');
        const opening = indexedDB.open('halfsplit', 1);
        opening.onupgradeneeded = () => opening.result.createObjectStore('writes', { keyPath: 'key' });
        opening.onerror = () => reject(new Error('not opened'));
        opening.onsuccess = () => {
          const writing = opening.result.transaction('writes', 'readwrite');
          writing.objectStore('writes').put({
            key,
            unitId,
            change: { type: 'add-note', id: key, text: 'Hums louder with the lid on.' },
          });
          writing.oncomplete = () => {
            opening.result.close();
            resolve();
          };
        };
      }),
    { unitId, key: randomUUID() },
  );
  await page.reload();
  await saved(page);
  const notes = async () => {
    const unit = (await (await page.request.get(`/api/v1/units/${unitId}`)).json()) as UnitResource;
    return unit.log.map((l) => l.summary);
  };
  await expect.poll(notes).toContain('Hums louder with the lid on.');
  await expect(page.locator('html')).toHaveAttribute('data-mode', 'dim');
  expect(
    await page.evaluate(() => Object.keys(localStorage).filter((k) => k.startsWith('halfsplit'))),
  ).toEqual([]);
});
