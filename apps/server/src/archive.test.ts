import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { DEMO_DRAWER, DEMO_UNITS } from '@zemble/demo';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ZipFile } from 'yazl';
import { alone } from './database/migrate.ts';
import { keepDailyCopy } from './features/archive/copies.ts';
import { restoreArchive } from './features/archive/read.ts';
import { sha256 } from './features/archive/record.ts';
import { writeArchive } from './features/archive/write.ts';
import { loadDemo, loadDemoDrawer } from './features/demo/service.ts';
import { openTestApp, type TestApp } from './testing/test-app.ts';
import { upload } from './testing/upload.ts';

// The models are of one connection at a time: one bench is read to its end before the next is opened.
let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'zemble-archive-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const restore = async (into: TestApp, path: string): Promise<number> => {
  let count = 0;
  await alone(into.app.database, async (t) => {
    ({ count } = await restoreArchive(into.app.database, path, t));
  });
  return count;
};

const at = (name: string) => join(folder, name);
const unitsOf = async (app: TestApp) =>
  ((await app.get('/units')).body as { units: { id: string; number: number }[] }).units;
const filesOf = async (app: TestApp) => {
  const files: string[] = [];
  for (const { id } of await unitsOf(app))
    files.push(JSON.stringify((await app.get(`/units/${id}/file`)).body));
  return files;
};

/** A bench with a story: demo units, photos, something removed, taken back, withdrawn and put away. */
async function fill(test: TestApp): Promise<{ unitId: string; sequence: number }> {
  await loadDemo(test.app.database, DEMO_UNITS, false);
  await loadDemoDrawer(test.app.database, DEMO_DRAWER);
  await test.write('POST', '/workshop', { mainsHz: 60 });
  const { unit } = await test.write('POST', '/units', { name: 'Übersteuerung & «hum»' });
  const part = { ref: 'R1', kind: 'resistor', pins: { a: 'in', b: '0' }, marked: '47k' };
  const { unit: withPart } = await test.write('POST', `/units/${unit.id}/parts`, { part });
  const partId = withPart.parts[0]!.id;
  await test.write('POST', `/units/${unit.id}/readings`, { baseVersion: 0, partId, value: 51e3 });
  const removed = await test.write('POST', `/units/${unit.id}/parts/${partId}/remove`, { baseVersion: 0 });
  await test.write('PATCH', `/units/${unit.id}`, { seen: {}, place: 'away' });
  return { unitId: unit.id, sequence: removed.answer.sequence };
}

describe('the archive of a bench', () => {
  it('restores onto an empty bench to the byte, and what was removed can still be taken back there', async () => {
    const test = await openTestApp();
    const { unitId, sequence } = await fill(test);
    await writeArchive(test.app.database, at('whole.zip'));
    const [units, files] = [await unitsOf(test), await filesOf(test)];
    await test.close();
    const other = await openTestApp();
    expect(await restore(other, at('whole.zip'))).toBe(units.length);
    await writeArchive(other.app.database, at('again.zip'));
    expect(readFileSync(at('again.zip')).equals(readFileSync(at('whole.zip')))).toBe(true);
    expect(await unitsOf(other)).toEqual(units);
    expect(await filesOf(other)).toEqual(files);
    const { items } = (await other.get('/drawer')).body as { items: unknown[] };
    expect(items).toHaveLength(DEMO_DRAWER.length);
    expect((await other.get('/workshop')).body).toEqual({ mainsHz: 60 });
    const back = await other.write('POST', `/units/${unitId}/undo`, { sequence });
    expect([back.status, back.unit.parts.length, back.unit.readings.length]).toEqual([200, 1, 1]);
    const next = await other.write('POST', '/units', { name: 'Next' });
    expect(next.unit.number).toBeGreaterThan(Math.max(...units.map((u) => u.number)));
    await other.close();
  });

  it('comes by the API, with large pictures as they are, and is refused where there are units already', async () => {
    const test = await openTestApp();
    const noise = { type: 'gaussian' as const, mean: 128, sigma: 60 };
    const size = { width: 1600, height: 1200, channels: 3 as const, background: '#888' };
    const jpeg = await sharp({ create: { ...size, noise } })
      .jpeg()
      .toBuffer();
    const { unit } = await test.write('POST', '/units', { name: 'With a photo' });
    const sent = await upload(test, unit.id, jpeg);
    expect(sent.status).toBe(201);
    const answer = await test.app.inject({ url: '/api/v1/archive' });
    expect([answer.statusCode, answer.headers['content-type']]).toEqual([200, 'application/zip']);
    expect(answer.headers['content-disposition']).toMatch(/bench-\d{4}-\d{2}-\d{2}\.zip/);
    writeFileSync(at('photo.zip'), answer.rawPayload);
    const { body } = await test.get(`/units/${unit.id}`);
    const url = `/api/v1/units/${unit.id}/photos/${(body as { photos: { id: string }[] }).photos[0]!.id}`;
    const picture = (await test.app.inject({ url })).rawPayload;
    expect(picture.length).toBeGreaterThan(100_000);
    await expect(restore(test, at('photo.zip'))).rejects.toThrow('units on this bench already');
    await test.close();
    const other = await openTestApp();
    await restore(other, at('photo.zip'));
    expect((await other.app.inject({ url })).rawPayload.equals(picture)).toBe(true);
    await other.close();
  });

  it('is refused when damaged, cut short, or of something else, and leaves nothing', async () => {
    const test = await openTestApp();
    await fill(test);
    await writeArchive(test.app.database, at('good.zip'));
    await test.close();
    const other = await openTestApp();
    const refused = async (name: string, bytes: Buffer, words: string) => {
      writeFileSync(at(name), bytes);
      await expect(restore(other, at(name))).rejects.toThrow(words);
      expect(await unitsOf(other)).toEqual([]);
    };
    const good = readFileSync(at('good.zip'));
    await refused('cut.zip', good.subarray(0, good.length / 2), 'cannot be read as an archive');
    await refused('text.zip', Buffer.from('no archive at all'), 'cannot be read as an archive');
    const zip = async (files: Record<string, string>) => {
      const made = new ZipFile();
      for (const [name, text] of Object.entries(files)) made.addBuffer(Buffer.from(text), name);
      made.end();
      return buffer(made.outputStream);
    };
    const list = (files: object, format = 'zemble/bench') => JSON.stringify({ format, version: 1, files });
    const record = 'units/1/record.json';
    const listed = (text: string) =>
      zip({ [record]: text, 'bench.json': list({ [record]: sha256(Buffer.from(text)) }) });
    await refused('other.zip', await zip({ 'a.txt': 'a' }), 'There is no bench.json');
    await refused('nonsense.zip', await zip({ 'bench.json': '{nonsense' }), 'no archive of a bench');
    await refused(
      'stranger.zip',
      await zip({ 'bench.json': list({}, 'other/bench') }),
      'no archive of a bench',
    );
    // One of the product's former name is one of this bench.
    await refused(
      'former.zip',
      await zip({ 'bench.json': list({ [record]: 'x' }, 'halfsplit/bench') }),
      `${record} is missing`,
    );
    await refused('missing.zip', await zip({ 'bench.json': list({ [record]: 'x' }) }), 'missing');
    const changed = await zip({ [record]: '{}', 'bench.json': list({ [record]: 'x' }) });
    await refused('changed.zip', changed, 'damaged');
    await refused('empty.zip', await listed('{}'), 'no record of a unit');
    const rows = { parts: [], readouts: [], readings: [], evidence: [], photos: [], log: [] };
    await refused('blank.zip', await listed(JSON.stringify({ unit: {}, ...rows })), 'no record of a unit');
    const odd = { number: 2_147_483_647, sequence: 0 };
    await refused('number.zip', await listed(JSON.stringify({ unit: odd, ...rows })), 'no record of a unit');
    const nameless = { number: 7, sequence: 0 };
    await refused(
      'nameless.zip',
      await listed(JSON.stringify({ unit: nameless, ...rows })),
      'cannot be kept',
    );
    await other.close();
  });
});

describe('an archive of a bench with one bad unit', () => {
  it('says so at once, and is restored without it when asked to; all or nothing otherwise', async () => {
    const test = await openTestApp();
    for (const name of ['Good', 'Bad', 'Good too']) await test.write('POST', '/units', { name });
    await test.app.database.query(
      `UPDATE units SET ticks = '{"s": {"at": "2200-01-01T00:00:00Z"}}' WHERE name = 'Bad'`,
    );
    expect(await writeArchive(test.app.database, at('bad.zip'))).toEqual([
      expect.stringMatching(/^units\/\d+-bad would not be restored: .*2200/),
    ]);
    await test.close();
    const other = await openTestApp();
    await expect(restore(other, at('bad.zip'))).rejects.toThrow('cannot be shown');
    expect(await unitsOf(other)).toEqual([]);
    await alone(other.app.database, async (t) => {
      const restored = await restoreArchive(other.app.database, at('bad.zip'), t, { leavesOut: true });
      expect(restored).toEqual({
        count: 2,
        leftOut: [expect.stringContaining('bad/record.json cannot be shown')],
      });
    });
    expect((await unitsOf(other)).map((u) => u.number)).toHaveLength(2);
    await other.close();
  });
});

describe('the daily copy', () => {
  it('is made once a day, of what there is, and kept for a fortnight', async () => {
    const test = await openTestApp();
    const copies = at('copies');
    expect(await keepDailyCopy(test.app.database, copies)).toBeNull();
    expect(readdirSync(copies)).toEqual([]);
    await test.write('POST', '/units', { name: 'Kept' });
    const path = await keepDailyCopy(test.app.database, copies);
    expect(path).toMatch(/bench-\d{4}-\d{2}-\d{2}\.zip$/);
    expect(await keepDailyCopy(test.app.database, copies)).toBeNull();
    for (let day = 1; day <= 20; day += 1)
      writeFileSync(join(copies, `bench-2026-01-${String(day).padStart(2, '0')}.zip`), 'old');
    rmSync(path!);
    await keepDailyCopy(test.app.database, copies);
    const kept = readdirSync(copies).sort();
    expect([kept.length, kept[0]]).toEqual([14, 'bench-2026-01-08.zip']);
    await test.close();
  });
});
