import { describe, expect, it } from 'vitest';
import { formatWant, parseWant } from './want-text.ts';

describe('a wish', () => {
  it.each([
    ['< 20 Hz, wished', { max: 20, wish: 1 }],
    ['< 20 Hz wished 2', { max: 20, wish: 2 }],
    ['8 .. 12 Hz, wished 0,5', { min: 8, max: 12, wish: 0.5 }],
  ])('%s', (text, want) => {
    expect(parseWant(text, 'frequency')).toEqual(want);
    expect(parseWant(formatWant(want, 'Hz'), 'frequency')).toEqual(want);
  });

  it.each(['wished', 'banana, wished', '< 20 Hz, wished 0', '< 20 Hz, wished 99999'])(
    '"%s" is none',
    (text) => {
      expect(parseWant(text, 'frequency')).toBeUndefined();
    },
  );

  it('is not what is firm', () => {
    expect(parseWant('< 20 Hz', 'frequency')).toEqual({ max: 20 });
    expect(formatWant({ max: 20 }, 'Hz')).toBe('< 20 Hz');
  });
});
