import { describe, expect, it } from 'vitest';
import type { Part } from '../../circuit/circuit/index.ts';
import { foundParams, foundValue, judgeReading, readingsOfFound, severity } from './index.ts';

const resistor = (marked: number, tolerance: number): Part => ({
  ref: 'R7',
  kind: 'resistor',
  pins: { a: 'x', b: '0' },
  marked,
  tolerance,
});
const electrolytic: Part = {
  ref: 'C5',
  kind: 'capacitor',
  pins: { a: 'x', b: '0' },
  marked: 22e-6,
  polarised: true,
};
const lifted = (value: number | 'open' | 'short') => ({ value, condition: 'leg lifted' as const });
const inCircuit = (value: number | 'open' | 'short') => ({ value, condition: 'in circuit' as const });

describe('verdicts', () => {
  /** Drifted carbon composition (common practice). */
  it('lets a 56k of 10 % read up to 61.6k, and puts a 68k at 75k on the border', () => {
    expect(judgeReading(resistor(56_000, 0.1), lifted(60_000)).kind).toBe('in');
    expect(judgeReading(resistor(56_000, 0.1), lifted(61_600)).kind).toBe('edge');
    expect(judgeReading(resistor(68_000, 0.1), lifted(75_000)).kind).toBe('edge');
    expect(judgeReading(resistor(68_000, 0.1), lifted(77_000)).kind).toBe('high');
  });

  it('says how far in one sentence', () => {
    expect(judgeReading(resistor(47_000, 0.1), lifted(62_000))).toMatchObject({
      kind: 'high',
      sentence: 'reads 32 % above 47k',
      deviation: expect.closeTo(0.319, 3),
    });
    expect(judgeReading(electrolytic, lifted(3.1e-6))).toMatchObject({
      kind: 'low',
      sentence: 'reads 86 % below 22µ: dried out',
    });
    expect(judgeReading(resistor(1000, 0.05), lifted(1020)).sentence).toBe('within 5 %');
  });

  it('knows open and short', () => {
    expect(judgeReading(resistor(47_000, 0.1), lifted('open')).kind).toBe('open');
    expect(judgeReading(resistor(47_000, 0.1), lifted(9e6)).kind).toBe('open');
    expect(judgeReading(resistor(47_000, 0.1), lifted(0.3)).kind).toBe('short');
    expect(judgeReading(electrolytic, lifted(10e-9)).kind).toBe('open');
    expect(judgeReading(electrolytic, lifted('short')).kind).toBe('short');
  });

  it('convicts in circuit only where a neighbour cannot mislead', () => {
    const part = resistor(120_000, 0.1);
    expect(judgeReading(part, inCircuit(88_000))).toMatchObject({ kind: 'cannot say', isTrusted: false });
    expect(judgeReading(part, inCircuit(160_000))).toMatchObject({ kind: 'high', isTrusted: true });
    expect(judgeReading(electrolytic, inCircuit(40e-6))).toMatchObject({
      kind: 'cannot say',
      isTrusted: false,
    });
    expect(judgeReading(electrolytic, inCircuit(3e-6))).toMatchObject({ kind: 'low', isTrusted: true });
    expect(judgeReading(part, inCircuit('short'))).toMatchObject({ kind: 'cannot say', isTrusted: false });
    expect(judgeReading(electrolytic, inCircuit('open'))).toMatchObject({ kind: 'open', isTrusted: true });
  });

  it('does not judge without a marking', () => {
    expect(judgeReading({ ...resistor(1, 0.1), marked: null }, lifted(4700))).toMatchObject({
      kind: 'no marking',
      deviation: null,
    });
  });

  it('takes the latest trusted reading as found, however many follow that say nothing', () => {
    const part = resistor(120_000, 0.1);
    expect(foundValue(part, [lifted(118_000), lifted(131_000), inCircuit(40_000)])).toBe(131_000);
    expect(foundValue(part, [inCircuit(40_000)])).toBeNull();
    expect(foundValue(part, [])).toBeNull();
  });

  it('sorts the dead before the drifted before the border before the good', () => {
    const part = resistor(1000, 0.05);
    const order = [lifted('open'), lifted(1500), lifted(1200), lifted(1050), lifted(1001)].map((r) =>
      severity(judgeReading(part, r)),
    );
    expect([...order].sort((a, b) => b - a)).toEqual(order);
    expect(severity(undefined)).toBeLessThan(order.at(-1)!);
  });
});

describe('a value from a change', () => {
  const told = (value: number, low: number, high?: number) => ({
    value,
    condition: 'from a change' as const,
    between: { low, ...(high === undefined ? {} : { high }) },
  });

  it('decides by twice its own error, either way, and otherwise says nothing of the part', () => {
    const part = resistor(10_000, 0.1);
    expect(judgeReading(part, told(14_000, 13_000, 15_000))).toMatchObject({ kind: 'high', isTrusted: true });
    expect(judgeReading(part, told(10_000, 9_800, 10_200))).toMatchObject({ kind: 'in', isTrusted: true });
    // 12k with 1k of error below reaches into the tolerance; with 0.4k it does not.
    expect(judgeReading(part, told(12_000, 11_000, 15_000))).toMatchObject({
      kind: 'cannot say',
      isTrusted: false,
      asks: 'leg',
    });
    expect(judgeReading(part, told(12_000, 11_600, 15_000)).kind).toBe('high');
    expect(judgeReading(part, told(12_000, 0)).sentence).toContain('a change this small says nothing');
    expect(judgeReading(part, told(4_000, 3_000, 5_000)).kind).toBe('low');
  });

  it('stands as found only where it decides', () => {
    expect(foundValue(resistor(10_000, 0.1), [lifted(10_100), told(12_000, 11_000, 15_000)])).toBe(10_100);
    expect(foundValue(resistor(10_000, 0.1), [lifted(10_100), told(14_000, 13_500, 14_500)])).toBe(14_000);
  });
});

describe('what was read beside the value', () => {
  it('stays with the part until it is read again, and can be written as readings once more', () => {
    const readings = [
      { ...lifted(20e-6), esr: 5 },
      lifted(21e-6),
      { ...lifted(1e-6), aspect: 'leakage' },
      { ...lifted(2), aspect: 'esr' },
    ];
    const found = foundParams(electrolytic, readings);
    expect(found).toEqual({ esr: 2, leakage: 25 / 1e-6 });
    const again = readingsOfFound({ ...electrolytic, foundParams: found });
    expect(foundParams(electrolytic, again)).toEqual(found);
  });

  it('is no value of the part, but for what leaves it none', () => {
    expect(foundValue(electrolytic, [lifted(20e-6), { ...lifted('short'), aspect: 'leakage' }])).toBe(
      'short',
    );
    expect(foundValue(electrolytic, [lifted(20e-6), { ...lifted(1e-3), aspect: 'leakage' }])).toBe(20e-6);
    const coil: Part = { ref: 'L1', kind: 'inductor', pins: { a: 'x', b: '0' }, marked: 1e-3 };
    expect(foundValue(coil, [{ ...lifted('open'), aspect: 'winding' }])).toBe('open');
    expect(foundParams(coil, [{ ...lifted(4), aspect: 'winding' }])).toEqual({ dcr: 4 });
  });
});
