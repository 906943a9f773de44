import type { ReadingResource } from '@zemble/contract';
import type { Drift } from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { rankBy, readingsForCircuit } from './reading-order.ts';
import { markingOf, typedAspects } from './part-words.ts';
import { partialUnit } from '../../testing/partial-unit.ts';

const part = (ref: string, more: object = {}) => ({
  id: `id-${ref}`,
  version: 0,
  position: 0,
  part: { ref, kind: 'resistor', pins: { a: 'x', b: '0' }, marked: 1000, ...more },
});
const reading = (ref: string, values: Partial<ReadingResource>): ReadingResource => ({
  id: `${ref}-${JSON.stringify(values)}`,
  partId: `id-${ref}`,
  readoutId: null,
  changeId: null,
  ref: null,
  value: 1000,
  condition: 'leg lifted',
  instrument: null,
  esr: null,
  aspect: null,
  red: null,
  isAsDrawn: false,
  between: null,
  takenAt: '2026-01-01T00:00:00.000Z',
  withdrawn: false,
  ...values,
});
const unit = partialUnit({
  parts: [
    part('R1'),
    part('R2'),
    part('C1', { kind: 'capacitor', polarised: true }),
    part('Q1', { kind: 'bjt' }),
  ],
  readings: [
    reading('R1', { condition: 'in circuit', value: 900 }),
    reading('R2', { condition: 'in circuit', value: 800 }),
    reading('R2', { value: 990 }),
    reading('Q1', { aspect: 'b-e', value: 0.6 }),
    reading('Q1', { aspect: 'b-e', value: 0.7 }),
    reading('C1', { aspect: 'leakage', value: 1e-6, withdrawn: true }),
  ],
  intake: { convicted: [{ blockId: 'b2', words: '', at: '' }], notes: [{ text: '', ref: 'R1', weight: 3 }] },
  path: {
    blocks: [
      { id: 'b1', parts: ['R1'] },
      { id: 'b2', parts: ['R2'] },
    ],
    links: [],
  },
  photos: [],
});
const order = (rank: (ref: string) => number) => ['R1', 'R2', 'C1', 'Q1'].sort((a, b) => rank(b) - rank(a));

describe('an order of the run', () => {
  it('by suspicion: the convicted block, then what others found, then what dries out', () => {
    expect(order(rankBy('by suspicion', unit, null))).toEqual(['R2', 'R1', 'C1', 'Q1']);
  });

  it('by harm, as the drifts are ranked', () => {
    const drifts = ['C1', 'R1'].map((ref) => ({ ref }) as Drift);
    const harm = { drifts, replacement: { refs: [], before: [], after: [], leftOut: [], outAsMarked: [] } };
    expect(order(rankBy('by harm', unit, harm))).toEqual(['C1', 'R1', 'R2', 'Q1']);
    expect(order(rankBy('as typed', unit, harm))).toEqual(['R1', 'R2', 'C1', 'Q1']);
    expect(order(rankBy('by board position', unit, harm))).toEqual(['R1', 'R2', 'C1', 'Q1']);
  });
});

describe('readings that the circuit judges', () => {
  it('are the last ones in circuit, and the last of what was read beside the value', () => {
    expect(readingsForCircuit(unit).map(({ ref, aspect, value }) => [ref, aspect, value])).toEqual([
      ['R1', null, 900],
      ['Q1', 'b-e', 0.7],
    ]);
  });
});

describe('words for a part', () => {
  it('say its marking, its type, or its nominal impedance', () => {
    const of = (more: object) => markingOf(part('X', more).part as never);
    expect(of({})).toBe('1 kΩ ±5 %');
    expect(of({ marked: null })).toBe('no marking');
    expect(of({ kind: 'bjt', model: '2N3904' })).toBe('2N3904');
    expect(of({ kind: 'speaker', marked: 8 })).toBe('nominal 8 Ω');
  });

  it('say what can be typed of it, one way round', () => {
    expect(typedAspects(part('Q1', { kind: 'bjt' }).part as never)).toEqual([
      'be 0.65V',
      'bc 0.65V',
      'ce OL',
      'gain 200',
    ]);
    const pnp = part('Q2', { kind: 'bjt', model: '2N3906' }).part as never;
    expect(typedAspects(pnp)).toEqual(['eb 0.65V', 'cb 0.65V', 'ce OL', 'gain 200']);
    expect(typedAspects(part('P1', { kind: 'potentiometer' }).part as never)).toEqual([
      'middle 24k',
      'end 3',
      'crackle',
    ]);
  });
});
