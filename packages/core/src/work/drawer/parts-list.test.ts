import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { partsList } from './index.ts';

describe('the parts list of a unit', () => {
  const { parts } = resolveLayer(
    circuitOf(
      'V1 9 vcc 0\nR1 10k a b\nR2 10k b 0\nR3 4k7 a 0\nU1A TL072 a b c vcc 0\nU1B TL072 c d d vcc 0\nC1 100n a 0',
    ),
    'planned',
  );
  const drawer = [
    { kind: 'resistor', value: 10_000, count: 1, place: 'A1' },
    { kind: 'capacitor', value: 1e-7, count: 9, place: 'C4' },
    { kind: 'resistor', value: 2350, count: 9, place: 'A2' },
  ] as const;

  it('counts parts of one sort together, with what the drawer gives and what must be bought', () => {
    const lines = partsList(parts, drawer);
    expect(
      lines.map((l) => [
        l.refs.join(' '),
        l.count,
        l.from.map((f) => `${f.count} ${f.item.place}`).join(),
        l.buy,
      ]),
    ).toEqual([
      ['R1 R2', 2, '1 A1', 1],
      ['R3', 1, '', 1],
      ['U1', 1, '', 1],
      ['C1', 1, '1 C4', 0],
    ]);
    expect(lines[1]!.substitutes.join()).toContain('in series');
  });
});
