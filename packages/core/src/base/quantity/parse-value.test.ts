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
    // As English writers group digits, with the decimal comma as the second reading.
    ['10,000 ohm', 10_000],
    ['1,000', 1000],
    ['2,200,000', 2_200_000],
    ['0,022', 0.022],
    ['100E', 100],
    ['4E7', 4.7],
    ['4k7 5%', 4700],
    ['614R', 614],
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
    // Old sheets: mf and mfd are microfarad, mmf, mmfd and uuF picofarad.
    ['.0022 mf', 2.2e-9],
    ['0.022 mF', 22e-9],
    ['47 mfd', 47e-6],
    ['8 MFD', 8e-6],
    ['100 mmf', 100e-12],
    ['50 mmfd', 50e-12],
    ['100 uuF', 100e-12],
    ['10uF/25V', 10e-6],
    ['1,000', 1e-9],
  ])('reads the capacitor %s as %d farad', (text, farads) => {
    expect(valueOf(text, { kind: 'capacitor' })).toBe(farads);
  });

  it('lists what else a grouped or an old text may mean', () => {
    const values = (text: string, kind: 'resistor' | 'capacitor') => {
      const parsed = parseValue(text, { kind });
      return parsed.ok ? parsed.readings.map((r) => r.value) : [];
    };
    expect(values('10,000', 'resistor')).toEqual([10_000, 10]);
    expect(values('10 mF', 'capacitor')).toEqual([10e-3, 10e-6]);
    expect(values('4E7', 'resistor')).toEqual([4.7, 4e7]);
    // A meter that shows a comma shows a decimal one, unless what is expected says otherwise.
    expect(valueOf('1,234 k', { kind: 'resistor', purpose: 'reading' })).toBe(1234);
    expect(valueOf('1,234', { kind: 'resistor', purpose: 'reading', expected: 1200 })).toBe(1234);
    expect(valueOf('5300 h', { kind: 'hours' })).toBe(5300);
    const rated = parseValue('47u 16 V', { kind: 'capacitor' });
    expect(rated.ok && rated.readings[0]).toMatchObject({ value: 47e-6, voltage: 16 });
    const close = parseValue('4k7 ±1 %', { kind: 'resistor' });
    expect(close.ok && close.readings[0].tolerance).toBe(0.01);
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

  it.each([
    '',
    '  ',
    'abc',
    '4x7',
    '12..3',
    '1e999',
    'k',
    '--5',
    '4k7k7',
    '4k7k',
    '10k10',
    'NaN',
    'Infinity',
  ])('refuses %j with a sentence', (text) => {
    const parsed = parseValue(text, { kind: 'resistor' });
    expect(parsed.ok).toBe(false);
    expect(!parsed.ok && parsed.problem.message).toMatch(/\.$/);
  });

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
        (value) => valueOf(exactText(value, 'number'), { kind: 'number', purpose: 'reading' }) === value,
      ),
    );
  });

  it('reads back exactly what exactText wrote, as every kind that a value is typed of', () => {
    for (const kind of ['resistor', 'capacitor', 'inductor', 'voltage', 'frequency', 'time'] as const)
      fc.assert(
        fc.property(fc.oneof(values, fc.integer({ min: 1, max: 9999 })), (value) => {
          const range = { resistor: [1e-4, 1e12], capacitor: [1e-14, 100], inductor: [1e-9, 1e4] };
          const [least, most] = kind in range ? range[kind as keyof typeof range] : [0, Infinity];
          return value < least! || value > most! || valueOf(exactText(value, kind), { kind }) === value;
        }),
      );
    expect(exactText(614, 'resistor')).toBe('614R');
    expect(exactText(1, 'capacitor')).toBe('1F');
    expect(exactText(100, 'inductor')).toBe('100H');
    expect(formatCode(272.2)).toBe('272R');
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
