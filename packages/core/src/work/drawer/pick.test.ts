import type { StockItem } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { benchSteps } from '../steps/index.ts';
import { pickFor, pickWords, supplyFor } from './index.ts';

const item = (
  value: number,
  place: string,
  count = 5,
  kind: 'resistor' | 'capacitor' = 'resistor',
): StockItem => ({
  kind,
  value,
  count,
  place,
});
const drawer = [item(4700, 'A3'), item(680, 'A2'), item(1000, 'A1'), item(1e-7, 'C1', 5, 'capacitor')];

describe('what is taken out of the drawer for a part', () => {
  it('is one item where it is there', () => {
    expect(pickWords(drawer, { kind: 'resistor', value: 1000 })).toBe('from A1');
  });

  it('is two where nobody makes the value: 4700 · 680 / (4700 + 680) = 594.05 Ω', () => {
    expect(pickWords(drawer, { kind: 'resistor', value: 594 })).toBe(
      'two parts: 4.7 kΩ (A3) with 680 Ω (A2) across it',
    );
    expect(pickWords(drawer, { kind: 'resistor', value: 5380 })).toBe(
      'two parts: 4.7 kΩ (A3) and 680 Ω (A2) end to end',
    );
    // One item twice needs two of it.
    const single = [item(1000, 'A1', 1)];
    expect(pickFor(single, { kind: 'resistor', value: 2005 })).toBeUndefined();
  });

  it('is named by the pair to look for where the drawer has none', () => {
    expect(pickWords([], { kind: 'resistor', value: 1000 })).toBeUndefined();
    const words = pickWords([], { kind: 'resistor', value: 594 })!;
    const ohms = [...words.matchAll(/([\d.]+) (k?)Ω/g)].map(([, n, k]) => Number(n) * (k ? 1000 : 1));
    expect(ohms).toHaveLength(2);
    const [a, b] = ohms as [number, number];
    const made = words.includes('across') ? (a * b) / (a + b) : a + b;
    expect(Math.abs(made / 594 - 1)).toBeLessThan(0.01);
  });

  it('is a value of a series as it is, though two could make it: it is bought', () => {
    expect(pickFor(drawer, { kind: 'resistor', value: 5600 })).toBeUndefined();
  });

  it('is reserved from both, as often as there is enough', () => {
    const wanted = { kind: 'resistor' as const, value: 594 };
    const needs = ['R1', 'R2', 'R3'].map((ref) => ({ wanted, ref, changeId: 'm' }));
    const [supply] = supplyFor(needs, [item(4700, 'A3', 2), item(680, 'A2', 5)]);
    expect(supply!.reserved.map((r) => `${r.count} of ${r.item.place}`)).toEqual([
      '1 of A3',
      '1 of A2',
      '1 of A3',
      '1 of A2',
    ]);
    expect(supply!.buy).toBe(1);
  });

  it('is said at the step that puts it in', () => {
    const circuit = {
      ...circuitOf('V1 12 vcc 0\nR1 1k vcc a\nR2 1k a 0'),
      changes: [
        {
          id: 'm',
          name: 'm',
          purpose: 'modification' as const,
          state: 'planned' as const,
          steps: [{ do: 'fit' as const, ref: 'R1', value: 594 }],
        },
      ],
    };
    const { steps } = benchSteps({ unit: {}, circuit, readouts: [] }, { drawer });
    expect(steps.find((s) => s.kind === 'fit')!.say).toContain(
      'two parts: 4.7 kΩ (A3) with 680 Ω (A2) across it',
    );
  });
});
