import type { SheetPart, UnitResource } from '@zemble/contract';
import { KINDS, parseTraceLine, readPart, type Part } from '@zemble/core';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(async () => {
  await test.close();
});

/** Types lines as on the bench. */
async function traced(...lines: readonly string[]): Promise<UnitResource> {
  let { unit } = await test.write('POST', '/units', { name: 'Small board' });
  for (const line of lines) unit = await typed(unit, line);
  return unit;
}

async function typed(unit: UnitResource, line: string): Promise<UnitResource> {
  const parts = unit.parts.map(({ part }): Part => readPart(part, part.ref, []));
  const read = parseTraceLine(line, { ground: unit.ground, parts, beeps: unit.beeps });
  if (!read.ok) throw new Error(read.problem.message);
  if (read.kind === 'beep') return (await test.write('POST', `/units/${unit.id}/beeps`, read.beep)).unit;
  for (const part of read.parts)
    unit = (await test.write('POST', `/units/${unit.id}/parts`, { part: part as SheetPart })).unit;
  return unit;
}

/** The net of each pin, in the order of the kind's pins. */
const pinsOf = (unit: UnitResource) =>
  Object.fromEntries(
    unit.parts.map(({ part }) => [part.ref, KINDS[part.kind].pins.map((pin) => part.pins[pin])]),
  );
const undo = async (unit: UnitResource, sequence = unit.log[0]!.sequence) =>
  (await test.write('POST', `/units/${unit.id}/undo`, { sequence })).unit;
const BOARD = ['R7 47k', 'C3 100n', 'Q2 2N3904'];

describe('beeps', () => {
  it('form nets in the same step, and taken back leave the parts exactly as they were', async () => {
    const before = await traced(...BOARD);
    const joined = await typed(before, 'C3.1 Q2.b R7.1');
    expect(pinsOf(joined)).toEqual({ R7: ['Q2b', 'R7b'], C3: ['Q2b', 'C3b'], Q2: ['Q2c', 'Q2b', 'Q2e'] });
    expect(joined.log[0]).toMatchObject({ kind: 'beep', summary: 'C3.a beeps with Q2.b and R7.a.' });
    const back = await undo(joined);
    expect(back.parts).toEqual(before.parts);
  });

  it('can be withdrawn one by one, whichever it was', async () => {
    const unit = await traced(...BOARD, 'C3.1 Q2.b', 'R7.1 Q2.b', 'gnd Q2.e');
    const [first] = unit.beeps;
    const { unit: after } = await test.write('POST', `/units/${unit.id}/beeps/${first!.id}/withdraw`, {});
    expect(pinsOf(after)).toEqual({ R7: ['Q2b', 'R7b'], C3: ['C3a', 'C3b'], Q2: ['Q2c', 'Q2b', '0'] });
    expect(after.beeps[0]!.withdrawn).toBe(true);
    const again = await test.write('POST', `/units/${unit.id}/beeps/${first!.id}/withdraw`, {});
    expect(again.status).toBe(404);
  });

  it('do not make entries stale that were begun before, nor lose a reading', async () => {
    const before = await traced(...BOARD);
    const part = before.parts[0]!;
    await typed(before, 'C3.1 R7.1');
    const { unit, status } = await test.write('POST', `/units/${before.id}/readings`, {
      partId: part.id,
      baseVersion: part.version,
      value: 62e3,
    });
    expect(status).toBe(201);
    expect(unit.readings).toHaveLength(1);
  });

  it('follow a designator, and a part whose line is entered again stays as it was traced', async () => {
    const unit = await traced(...BOARD, 'C3.1 Q2.b', 'R7.1 Q2.b');
    const r7 = unit.parts[0]!;
    const sent = { ...r7.part, ref: 'R8', marked: 56e3 };
    const { unit: renamed } = await test.write('PUT', `/units/${unit.id}/parts/${r7.id}`, {
      baseVersion: r7.version,
      part: sent,
    });
    expect(pinsOf(renamed)).toMatchObject({ R8: ['Q2b', 'R8b'] });
    expect(renamed.beeps[1]!.ends).toEqual(['R8.a', 'Q2.b']);
    const back = await undo(renamed);
    expect(pinsOf(back)).toEqual(pinsOf(unit));
    expect(back.beeps.map((b) => b.ends)).toEqual(unit.beeps.map((b) => b.ends));
  });

  it('take a net that is typed for what was said, and give it to all that beeps with it', async () => {
    const unit = await traced(...BOARD, 'C3.1 Q2.b');
    const c3 = unit.parts[1]!;
    const { unit: named } = await test.write('PUT', `/units/${unit.id}/parts/${c3.id}`, {
      baseVersion: c3.version,
      part: { ...c3.part, pins: { a: 'base', b: c3.part.pins.b! } },
    });
    expect(pinsOf(named)).toMatchObject({ C3: ['base', 'C3b'], Q2: ['Q2c', 'base', 'Q2e'] });
  });

  it('are joined by a part that says the name under which their net is shown', async () => {
    const unit = await traced(...BOARD, 'U1 TL072', 'C3.1 Q2.b');
    const part = { ref: 'R9', kind: 'resistor', marked: 1000, pins: { a: 'Q2b', b: 'vcc' } };
    const { unit: after } = await test.write('POST', `/units/${unit.id}/parts`, { part });
    expect(pinsOf(after)).toMatchObject({
      R9: ['Q2b', 'vcc'],
      C3: ['Q2b', 'C3b'],
      Q2: ['Q2c', 'Q2b', 'Q2e'],
    });
    expect(pinsOf(after).U1B!.at(-2)).toBe('vcc');
    const back = await undo(after);
    expect(back.parts.map((p) => p.part)).toEqual(unit.parts.map((p) => p.part));
  });

  it('go through a coil once that is said', async () => {
    const unit = await traced(...BOARD, 'L1 1m', 'L1.1 R7.1', 'L1.2 C3.1', 'R7.1 C3.1');
    expect(new Set(pinsOf(unit).L1).size).toBe(1);
    const last = unit.beeps.at(-1)!;
    const path = `/units/${unit.id}/beeps/${last.id}/through`;
    const { unit: after } = await test.write('POST', path, { through: 'L1' });
    expect(new Set(pinsOf(after).L1).size).toBe(2);
    expect(pinsOf(await undo(after))).toEqual(pinsOf(unit));
  });

  it('are refused with what is wrong of them', async () => {
    const unit = await traced(...BOARD, 'C3.1 # Q2.b');
    const post = (body: object) => test.write('POST', `/units/${unit.id}/beeps`, body);
    expect((await post({ says: 'together', ends: ['C3.a'] })).status).toBe(422);
    expect((await post({ says: 'maybe', ends: ['C3.a', 'Q2.b'] })).status).toBe(422);
    const through = `/units/${unit.id}/beeps/${unit.beeps[0]!.id}/through`;
    expect((await test.write('POST', through, { through: 'R7' })).status).toBe(422);
    expect((await test.write('POST', `/units/${unit.id}/beeps/${randomUUID()}/withdraw`, {})).status).toBe(
      404,
    );
  });

  it('come back with the unit from its file', async () => {
    const unit = await traced(...BOARD, 'C3.1 Q2.b', 'gnd Q2.e', 'R7.1 # Q2.b');
    const { unit: kept } = await test.write(
      'POST',
      `/units/${unit.id}/beeps/${unit.beeps[1]!.id}/withdraw`,
      {},
    );
    const file = await test.app.inject({ method: 'GET', url: `/api/v1/units/${unit.id}/file` });
    const { unit: copy } = await test.write('POST', '/units/import', { text: file.body });
    expect(copy.parts.map((p) => p.part)).toEqual(kept.parts.map((p) => p.part));
    expect(copy.beeps.map((b) => [b.says, b.ends, b.withdrawn])).toEqual(
      kept.beeps.map((b) => [b.says, b.ends, b.withdrawn]),
    );
  });
});
