import { describe, expect, it } from 'vitest';
import { markedCircuitOf } from '../../testing/circuits.ts';
import { controlState, controlWords, withControl, type ControlState } from './control.ts';

const partOf = (line: string) => markedCircuitOf(line).parts[0]!;
const turned = (line: string, state: ControlState) => {
  const part = withControl(partOf(line), state);
  return part === undefined ? undefined : controlState(part);
};

describe('controls', () => {
  it('stand where they are drawn, and in the middle, closed, empty where nothing is said', () => {
    expect(controlState(partOf('P1 10k 1=a 2=b 3=0'))).toBe(0.5);
    expect(controlState(partOf('P1 10k 1=a 2=b 3=0 position=0.2'))).toBe(0.2);
    expect(controlState(partOf('SW1 a 0'))).toBe(true);
    expect(controlState(partOf('J1 jack tip=a sleeve=0'))).toBe(false);
    expect(controlState(partOf('R1 10k a 0'))).toBeUndefined();
  });

  it('take positions that they have, in the words of the bench', () => {
    expect(turned('P1 10k 1=a 2=b 3=0', 1)).toBe(1);
    expect(turned('SW1 a 0', 'open')).toBe(false);
    expect(turned('SW1 a 0', 'ON')).toBe(true);
    expect(turned('SW1 a 0', false)).toBe(false);
    expect(turned('J1 jack tip=a sleeve=0', 'inserted')).toBe(true);
    expect(turned('SW1 changeover com=a a=b b=0', 'b')).toBe('b');
  });

  it('take no position that they have not', () => {
    for (const state of [-0.1, 1.1, Number.NaN, 'half', true])
      expect(turned('P1 10k 1=a 2=b 3=0', state)).toBeUndefined();
    expect(turned('SW1 a 0', 'sideways')).toBeUndefined();
    expect(turned('SW1 a 0', 0.5)).toBeUndefined();
    expect(turned('SW1 changeover com=a a=b b=0', 'c')).toBeUndefined();
    expect(turned('R1 10k a 0', 0.5)).toBeUndefined();
  });
});

describe('where a control stands, in words', () => {
  it.each([
    ['P1 100k 1=a 2=w 3=0 position=0.3', 'at 30 %'],
    ['P1 100k 1=a 2=w 3=0', 'at 50 %'],
    ['SW1 a b open', 'open'],
    ['SW1 a b closed', 'closed'],
    ['CO1 com a b position=b', 'at b'],
    ['R1 1k a b', ''],
  ])('%s: %s', (line, words) => {
    expect(controlWords(partOf(line))).toBe(words);
  });
});
