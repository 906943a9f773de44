import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';

import { circuitOf } from '../../testing/circuits.ts';
import { meterReading, shownVolts } from './index.ts';

const shownOf = (text: string) => shownVolts(resolveLayer(circuitOf(text), 'marked'));

describe('what a voltmeter shows at every net', () => {
  it('is less where the net is of high resistance: two of 10M on 250 V show 83.3 V, not 125 V (voltage divider, textbook)', () => {
    const shown = shownOf('V1 250V ht 0\nR1 10M ht grid\nR2 10M grid 0');
    expect(shown.get('grid')).toBeCloseTo((250 * 5) / 15, 2);
    expect(shown.get('ht')).toBeCloseTo(250, 6);
    expect(shown.has('0')).toBe(false);
  });

  it('is what the meter held to that net alone shows, in a stage with a base that it loads', () => {
    const text =
      'V1 12V vcc 0\nR1 4M7 vcc b\nR2 3M3 b 0\nQ1 2N3904 c b e\nR3 10k vcc c\nR4 4k7 e 0\nC1 10u polarised e 0\nJF1 jfet d g s\nR5 10M g 0\nR6 100k vcc d\nR7 1M s 0';
    const circuit = resolveLayer(circuitOf(text), 'marked');
    for (const [net, volt] of shownVolts(circuit)) {
      const { reading } = meterReading(circuit, 'dcv', net, '0');
      expect(Math.abs(volt - reading!), net).toBeLessThan(0.002 * Math.abs(reading!) + 1e-3);
    }
  });

  it('is never more than what is there, in ladders of any resistances', () => {
    const ohm = fc.integer({ min: 3, max: 8 }).map((decade) => 10 ** decade);
    fc.assert(
      fc.property(fc.array(fc.tuple(ohm, ohm), { minLength: 1, maxLength: 6 }), (rungs) => {
        const lines = rungs.flatMap(([along, down], i) => [
          `R${2 * i + 1} ${along} n${i} n${i + 1}`,
          `R${2 * i + 2} ${down} n${i + 1} 0`,
        ]);
        const circuit = resolveLayer(circuitOf(['V1 100V n0 0', ...lines].join('\n')), 'marked');
        for (const [net, volt] of shownVolts(circuit)) {
          const free = meterReading(circuit, 'dcv', net, '0', { inputOhm: 1e13 }).reading!;
          const loaded = meterReading(circuit, 'dcv', net, '0').reading!;
          expect(volt).toBeLessThanOrEqual(free * (1 + 1e-3) + 1e-6);
          expect(Math.abs(volt - loaded)).toBeLessThanOrEqual(2e-3 * loaded + 1e-6);
        }
      }),
      { numRuns: 60 },
    );
  });
});
