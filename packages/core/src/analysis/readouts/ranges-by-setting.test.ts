import { describe, expect, it } from 'vitest';
import type { Setting } from '../../circuit/circuit/index.ts';
import { circuitOf, sessionOf } from '../../testing/circuits.ts';
import { rangesBySetting, type Readout } from './index.ts';

describe('ranges over a knob in several settings', () => {
  // A divider of a knob in series with R1, which a switch halves: 10 R/(R + P).
  const session = sessionOf(
    circuitOf('V1 10V a 0\nP1 10k a b b position=0.5\nR1 10k b 0\nR2 10k b c\nSW1 c 0 open'),
  );
  const readouts: Readout[] = [{ id: 'v', name: 'V', kind: 'voltage', net: 'b' }];
  const range: Readout & { kind: 'range' } = { id: 'r', name: 'R', kind: 'range', of: 'v', part: 'P1' };
  const settings: Setting[] = [
    { id: 'low', name: 'Low', controls: { SW1: true } },
    { id: 'odd', name: 'Odd', controls: { SW9: true } },
  ];

  it('are those of the divider, and what both reach is where they overlap', () => {
    const { ranges, common } = rangesBySetting(session, range, { readouts, settings: settings.slice(0, 1) });
    expect(ranges.map((r) => r.setting?.id ?? null)).toEqual([null, 'low']);
    expect(ranges[0]!.ends!.min).toBeCloseTo(5, 4);
    expect(ranges[0]!.ends!.max).toBeCloseTo(10, 2);
    expect(ranges[1]!.ends!.min).toBeCloseTo(10 / 3, 4);
    expect(common!.min).toBeCloseTo(5, 4);
    expect(common!.max).toBeCloseTo(10, 2);
  });

  it('say why one has none, and go on', () => {
    const { ranges, common } = rangesBySetting(session, range, { readouts, settings });
    expect(ranges[2]).toMatchObject({ ends: null, sentence: expect.stringContaining('SW9') });
    expect(common).not.toBeNull();
  });
});
