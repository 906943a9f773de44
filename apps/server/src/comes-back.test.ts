import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { IDEMPOTENCY_HEADER, unitResourceSchema, type UnitResource } from '@zemble/contract';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { alone } from './database/migrate.ts';
import { restoreArchive } from './features/archive/read.ts';
import { writeArchive } from './features/archive/write.ts';
import { drawnRequests } from './testing/drawn-acts.ts';
import { openTestApp } from './testing/test-app.ts';

/** Edits that are drawn; more in a long run. */
const EDITS = Number(process.env.ZEMBLE_EDITS ?? 300);
const SEED = Number(process.env.ZEMBLE_SEED ?? 20261201);
/** Ten times what it takes on a quiet machine, s. */
const SECONDS = 120 + EDITS;
/** After so many the unit is looked at in every way. */
const BATCH = 50;

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'zemble-back-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const START = {
  format: 'zemble/unit',
  version: 1,
  unit: { name: 'Drawn' },
  circuit: {
    ground: '0',
    parts: [
      { ref: 'V1', kind: 'supply', pins: { plus: 'vcc', minus: '0' }, marked: 9 },
      { ref: 'R1', kind: 'resistor', pins: { a: 'vcc', b: 'a' }, marked: 1000 },
      { ref: 'R10', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: 1000 },
    ],
  },
  readouts: [{ id: 'v', name: 'At a', kind: 'voltage', net: 'a' }],
};

describe('what is accepted comes back', () => {
  it(
    `after each of ${EDITS} drawn edits (seed ${SEED}): unit, file, table, the file opened anew, and the archive byte for byte`,
    async () => {
      const test = await openTestApp();
      let { unit } = await test.write('POST', '/units/import', { text: JSON.stringify(START) });
      const root = `/units/${unit.id}`;
      const accepted = new Map<string, number>();
      /** As from many devices, so that none is told to wait. */
      const from = (i: number) => `10.0.${(i >> 8) & 255}.${i & 255}`;
      const get = async (path: string, i: number) => {
        const answer = await test.app.inject({ url: `/api/v1${path}`, remoteAddress: from(i) });
        return { status: answer.statusCode, body: answer.json<unknown>() };
      };
      const requests = fc.sample(drawnRequests(), { numRuns: EDITS, seed: SEED });
      for (const [i, { type, method, path, body }] of requests.entries()) {
        const sent = body(unit);
        const answer = await test.app.inject({
          method,
          url: `/api/v1${root}${path(unit)}`,
          headers: { [IDEMPOTENCY_HEADER]: randomUUID() },
          payload: sent,
          remoteAddress: from(i),
        });
        const { statusCode: status } = answer;
        const problem = answer.json<{ detail?: string }>();
        // Whatever it is, it is taken or refused with a sentence; nothing breaks the server.
        expect([
          i,
          type,
          status < 500 ? 'answered' : problem.detail,
          status < 500 ? '' : JSON.stringify(sent).slice(0, 400),
        ]).toEqual([i, type, 'answered', '']);
        if (status < 300) accepted.set(type, (accepted.get(type) ?? 0) + 1);
        const read = await get(root, i);
        expect([i, type, read.status]).toEqual([i, type, 200]);
        unit = unitResourceSchema.parse(read.body) as UnitResource;
        if ((i + 1) % BATCH !== 0) continue;
        const file = await test.app.inject({ url: `/api/v1${root}/file` });
        expect([i, file.statusCode]).toEqual([i, 200]);
        expect((await test.app.inject({ url: `/api/v1${root}/readings.csv` })).statusCode).toBe(200);
        const again = await test.write('POST', '/units/import', { text: file.body });
        expect([i, again.status, again.problem.detail]).toEqual([i, 201, undefined]);
      }
      // Of most kinds something was taken: a generator whose edits are all refused would show nothing.
      expect(accepted.size).toBeGreaterThan(8);
      const [one, two] = ['one.zip', 'two.zip'].map((name) => join(folder, name));
      expect(await writeArchive(test.app.database, one!)).toEqual([]);
      await test.close();
      const other = await openTestApp();
      await alone(other.app.database, async (t) => {
        await restoreArchive(other.app.database, one!, t);
      });
      await writeArchive(other.app.database, two!);
      expect(readFileSync(two!).equals(readFileSync(one!))).toBe(true);
      await other.close();
    },
    SECONDS * 1000,
  );
});
