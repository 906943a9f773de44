import type { UnitResource } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { documentFromResource, DocumentMaker } from './unit-resource.ts';

const part = (id: string, marked: number) => ({
  id,
  version: 0,
  position: 0,
  part: { ref: id, kind: 'resistor' as const, pins: { a: 'x', b: '0' }, marked },
});
const reading = (id: string, partId: string, value: number, condition = 'leg lifted') => ({
  id,
  partId,
  readoutId: null,
  changeId: null,
  ref: null,
  value,
  condition,
  aspect: null,
  esr: null,
  withdrawn: false,
});
const start = {
  name: 'One',
  ground: '0',
  parts: [part('R1', 1000), part('R2', 2000)],
  readings: [],
  readouts: [
    { id: 'v', version: 0, position: 0, readout: { id: 'v', name: 'X', kind: 'voltage', net: 'x' } },
  ],
  evidence: [],
  intake: {},
  models: [],
  settings: [],
  wires: [],
  boards: [],
  panels: [],
  sets: [],
  beeps: [],
  changes: [],
  path: null,
} as object as UnitResource;
const withReadings = (...readings: object[]) => ({ ...start, readings }) as UnitResource;

describe('documents of a unit as it changes', () => {
  it('are the same object where nothing that is computed with has changed', () => {
    const maker = new DocumentMaker();
    const first = maker.make(start);
    expect(maker.make({ ...start, sequence: 9, log: [], nudges: {} } as UnitResource)).toBe(first);
    const noted = maker.make({ ...start, notes: 'smells' });
    expect(noted).not.toBe(first);
    expect([noted.circuit === first.circuit, noted.readouts === first.readouts]).toEqual([true, true]);
  });

  it('change only the part that was read, and nothing for a reading that proves nothing', () => {
    const maker = new DocumentMaker();
    const first = maker.make(start);
    const read = maker.make(withReadings(reading('m1', 'R1', 1200)));
    expect(read.circuit.parts[0]).toMatchObject({ ref: 'R1', found: 1200 });
    expect(read.circuit.parts[1]).toBe(first.circuit.parts[1]);
    expect(read.readouts).toBe(first.readouts);
    const hidden = maker.make(
      withReadings(reading('m1', 'R1', 1200), reading('m2', 'R2', 900, 'in circuit')),
    );
    expect(hidden.circuit.parts[1]).not.toHaveProperty('found');
    const gone = maker.make(start);
    expect(gone.circuit.parts[0]).not.toHaveProperty('found');
  });

  it('are what one made at once would be', () => {
    const maker = new DocumentMaker();
    const steps = [
      start,
      withReadings(reading('m1', 'R1', 1200)),
      { ...start, parts: [part('R2', 2000)] } as UnitResource,
      { ...start, name: 'Two', models: [{ name: 'Q', kind: 'bjt', params: { BF: 9 } }] } as UnitResource,
      start,
    ];
    for (const unit of steps) expect(maker.make(unit)).toEqual(documentFromResource(unit));
  });
});
