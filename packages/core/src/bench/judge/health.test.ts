import { describe, expect, it } from 'vitest';
import { problem } from '../../base/errors/index.ts';
import type { Readout } from '../../analysis/readouts/index.ts';
import { healthOf, type ReadoutState } from './health.ts';

const readout = (id: string, want: Readout['want']): Readout => ({
  id,
  name: id,
  kind: 'voltage',
  net: 'a',
  want,
});
const state = (id: string, value: number | 'none' | null, bench: number | null = null): ReadoutState => ({
  readout: readout(id, { min: 4, max: 6 }),
  answer:
    value === null
      ? undefined
      : value === 'none'
        ? { ok: false, problem: problem('analysis/no-convergence', { net: 'a', parts: [] }) }
        : { ok: true, value },
  bench,
});

describe('whether a unit is well', () => {
  it('is said only when every wanted readout is inside, as computed and on the bench', () => {
    expect(healthOf([state('a', 5, 5.1), state('b', 4.4, 4.4)])).toEqual({ kind: 'well' });
    expect(healthOf([state('a', 5, 5.1), state('b', 4.4)])).toMatchObject({
      kind: 'not measured',
      readouts: [{ id: 'b' }],
    });
  });

  it('is never said of what has no value, or is still being computed', () => {
    expect(healthOf([state('a', 5, 5), state('b', 'none', 5)])).toMatchObject({
      kind: 'no value',
      readouts: [{ id: 'b' }],
    });
    expect(healthOf([state('a', 5, 5), state('b', null, 5)])).toEqual({ kind: 'computing' });
  });

  it('names what is furthest out, by the bench as well', () => {
    expect(healthOf([state('a', 7, 5), state('b', 5, 12)])).toMatchObject({
      kind: 'out',
      readout: { id: 'b' },
      value: 12,
      isBench: true,
    });
    expect(healthOf([state('a', 7), state('b', 'none')])).toMatchObject({
      kind: 'out',
      readout: { id: 'a' },
    });
  });

  it('is no question where nothing is wanted', () => {
    expect(healthOf([])).toEqual({ kind: 'nothing wanted' });
    expect(healthOf([{ ...state('a', 5), readout: readout('a', undefined) }])).toEqual({
      kind: 'nothing wanted',
    });
  });
});
