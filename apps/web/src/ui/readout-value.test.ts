import { describe, expect, it } from 'vitest';
import { answerText, readoutText } from './readout-value.ts';

describe('a readout in a column', () => {
  it.each([
    [0.0123, 'ratio', '1.23 %'],
    [-1.44, 'dB', '-1.4 dB'],
    [1.2667, 'Hz', '1.27 Hz'],
    [600, 's', '10 min'],
    [36_000, 's', '10.0 h'],
  ] as const)('%d as %s is %s', (value, unit, text) => {
    expect(readoutText(value, unit).replace('−', '-')).toBe(text);
  });

  it.each([
    [1.1096, 1.7305, 'Hz', '1.11 … 1.73 Hz'],
    [820, 1730, 'Hz', '820 Hz … 1.73 kHz'],
    [0.001, 0.02, 'ratio', '0.100 … 2.00 %'],
    [2, 14, '', '2.00 … 14.0'],
  ] as const)(
    'the range from %d to %d (%s) is %s, its unit said once where both ends share it',
    (min, max, unit, text) => {
      expect(answerText({ ok: true, value: max - min, range: { min, max } }, unit)).toBe(text);
    },
  );

  it('is a dash where there is none', () => {
    expect(answerText(undefined, 'V')).toBe('–');
  });
});
