import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exactText, formatCode, formatQuantity, parseValue, valueOf } from './index.ts';

describe('parseValue, notations of IEC 60062 and of the trade', () => {
  it.each([
    ['4k7', 4700],
    ['4K7', 4700],
    ['2R2', 2.2],
    ['R47', 0.47],
    ['4.7 kΩ', 4700],
    ['4,7k', 4700],
    ['10 MΩ', 1e7],
    ['1M', 1e6],
    ['2meg2', 2.2e6],
    ['100R', 100],
    ['220', 220],
    ['4702', 47_000],
    ['473', 47_000],
    ['104', 100_000],
    ['yellow violet red gold', 4700],
    ['1e3', 1000],
    // Round numbers and those of a series are ohms; a code is taken where its digits are no usual value.
    ['600', 600],
    ['400', 400],
    ['500', 500],
    ['5000', 5000],
    ['2500', 2500],
    ['680', 680],
    ['820', 820],
    ['1000', 1000],
  ])('reads the resistor %s as %d ohm', (text, ohms) => {
    expect(valueOf(text, { kind: 'resistor' })).toBe(ohms);
  });

  it.each([
    ['104', 100e-9],
    ['104K', 100e-9],
    ['479', 4.7e-12],
    ['0.022u', 22e-9],
    ['0.1', 100e-9],
    ['47', 47e-12],
    ['4n7', 4.7e-9],
    ['3p3', 3.3e-12],
    ['100nF', 100e-9],
    ['4.7µF', 4.7e-6],
    ['1F', 1],
    ['1e-6', 1e-6],
  ])('reads the capacitor %s as %d farad', (text, farads) => {
    expect(valueOf(text, { kind: 'capacitor' })).toBe(farads);
  });

  it('carries the tolerance letter of IEC 60062', () => {
    const parsed = parseValue('4K7J', { kind: 'resistor' });
    expect(parsed.ok && parsed.readings[0]).toEqual({
      value: 4700,
      unit: 'ohm',
      kind: 'resistor',
      notation: 'letter code',
      tolerance: 0.05,
    });
  });

  it('lists every reading of an ambiguous text, the likeliest first', () => {
    const parsed = parseValue('104');
    expect(parsed.ok && parsed.readings.map((r) => [r.kind, r.value])).toEqual([
      ['capacitor', 100e-9],
      ['resistor', 100_000],
      ['resistor', 104],
      ['capacitor', 104e-12],
      ['capacitor', 104e-6],
    ]);
  });

  it('takes digits as digits when an instrument shows them', () => {
    expect(valueOf('104', { kind: 'resistor', purpose: 'reading' })).toBe(104);
    expect(valueOf('95', { kind: 'capacitor', purpose: 'reading', expected: 100e-9 })).toBe(95e-9);
  });

  it.each(['', '  ', 'abc', '4x7', '12..3', '1e999', 'k', '--5', '4k7k7', 'NaN', 'Infinity'])(
    'refuses %j with a sentence',
    (text) => {
      const parsed = parseValue(text, { kind: 'resistor' });
      expect(parsed.ok).toBe(false);
      expect(!parsed.ok && parsed.problem.message).toMatch(/\.$/);
    },
  );

  it('refuses a value in another unit, naming both', () => {
    const parsed = parseValue('47nF', { kind: 'resistor' });
    expect(!parsed.ok && parsed.problem).toMatchObject({
      code: 'value/wrong-unit',
      message: '"47nF" is in F, not ohm.',
    });
    expect(parseValue('62k', { kind: 'capacitor' }).ok).toBe(false);
  });

  it('never throws and never gives a number that is not finite', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 24 }), (text) => {
        const parsed = parseValue(text);
        return !parsed.ok || parsed.readings.every((r) => Number.isFinite(r.value));
      }),
    );
  });
});

describe('formatting', () => {
  it.each([
    [47_000, 'ohm', '47 kΩ'],
    [-0.0021, 'V', '\u22122.1 mV'],
    [999.96, 'Hz', '1 kHz'],
    [0, 'V', '0 V'],
    [22e-12, 'F', '22 pF'],
    [Number.NaN, 'V', '–'],
    [Number.POSITIVE_INFINITY, 'V', '–'],
  ])('formats %d %s', (value, unit, text) => {
    expect(formatQuantity(value, unit)).toBe(text);
  });

  it.each([
    [4700, '4k7'],
    [2180, '2k18'],
    [2.2, '2R2'],
    [0.47, 'R47'],
    [3.1e-6, '3µ1'],
    [47_000, '47k'],
  ])('writes the code of %d as %s (IEC 60062)', (value, text) => {
    expect(formatCode(value)).toBe(text);
  });

  it('speaks of capacitors as the trade does: microfarad up to 0.1 F, then farad (common practice)', () => {
    const words = [1e-3, 4.7e-3, 0.022, 0.1, 0.47, 1].map((v) => formatQuantity(v, 'F'));
    expect(words).toEqual(['1000 µF', '4700 µF', '22000 µF', '0.1 F', '0.47 F', '1 F']);
    expect(formatCode(1e-3, 3, 'F')).toBe('1000µ');
    expect(formatCode(0.47, 3, 'F')).toBe('0F47');
  });

  const values = fc
    .tuple(
      fc.double({ min: 1, max: 9.99, noNaN: true }),
      fc.integer({ min: -11, max: 8 }),
      fc.integer({ min: 1, max: 15 }),
    )
    .map(([m, e, digits]) => Number(`${Number(m.toPrecision(digits))}e${e}`));

  it('reads back exactly what exactText wrote', () => {
    fc.assert(
      fc.property(
        values,
        (value) => valueOf(exactText(value), { kind: 'number', purpose: 'reading' }) === value,
      ),
    );
  });

  it('reads back what formatQuantity wrote to its digits', () => {
    fc.assert(
      fc.property(values, (value) => {
        const back = valueOf(formatQuantity(value, 'V', { digits: 6 }), {
          kind: 'voltage',
          purpose: 'reading',
        });
        return back !== undefined && Math.abs(back / value - 1) < 1e-5;
      }),
    );
  });

  it('reads back what formatCode wrote to its digits', () => {
    const ohms = values.filter((v) => v >= 0.1 && v < 1e8);
    fc.assert(
      fc.property(ohms, (value) => {
        const back = valueOf(formatCode(value, 4), { kind: 'resistor', purpose: 'reading' });
        return back !== undefined && Math.abs(back / value - 1) < 1e-3;
      }),
    );
  });
});
