import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { symbolText, symbolTextRoom } from './index.ts';

const [pot, resistor, contact, capacitor] = circuitOf(
  'P1 100k 1=a 2=b 3=0 position=0.05\nR1 4k7 a b\nSW1 a b open\nC1 100n b 0',
).parts;

describe('text beside a symbol', () => {
  it('is the value in the code of IEC 60062, and of a potentiometer where its knob stands', () => {
    expect(symbolText(resistor!, 4700)).toBe('4k7');
    expect(symbolText(capacitor!, 100e-9)).toBe('100n');
    expect(symbolText(pot!, 100_000)).toBe('100k 5 %');
    expect(symbolText(pot!, null)).toBe('5 %');
    expect(symbolText(contact!, null)).toBe('');
  });

  it('has room for every position, so that turning a knob moves nothing', () => {
    for (const position of [0, 0.05, 0.5, 1]) {
      const turned = { ...pot!, position } as NonNullable<typeof pot>;
      expect(symbolTextRoom(turned, 100_000)).toBe('100k 100 %');
    }
    expect(symbolTextRoom(resistor!, 4700)).toBe('4k7');
  });
});
