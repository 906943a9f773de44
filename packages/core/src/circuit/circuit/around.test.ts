import { describe, expect, it } from 'vitest';
import { markedCircuitOf } from '../../testing/circuits.ts';
import { aroundNet } from './around.ts';

const refs = (lines: string, net: string) =>
  aroundNet(markedCircuitOf(lines), net)
    .parts.map((p) => p.ref)
    .sort();

describe('what acts on a net', () => {
  const TWO = 'V1 9V v 0\nR1 1k v a\nC1 1u a 0\nR2 1k v b\nC2 1u b 0';

  it('is not what is joined to it over a stiff supply and ground only; the supply stays', () => {
    expect(refs(TWO, 'a')).toEqual(['C1', 'R1', 'V1']);
    expect(refs(TWO, 'b')).toEqual(['C2', 'R2', 'V1']);
  });

  it('is all where the supply gives way, or something joins them', () => {
    const all = ['C1', 'C2', 'R1', 'R2', 'V1'];
    expect(refs(TWO.replace('V1 9V v 0', 'V1 9V v 0 resistance=1'), 'a')).toEqual(all);
    expect(refs(`${TWO}\nR3 1M a b`, 'a')).toEqual([...all, 'R3'].sort());
  });

  it('goes through supplies that stand on one another', () => {
    expect(refs('V1 9V v 0\nV2 9V 0 w\nV3 5V w x\nR1 1k x a\nC1 1u a 0\nR2 1k w b\nC2 1u b 0', 'a')).toEqual([
      'C1',
      'R1',
      'V1',
      'V2',
      'V3',
    ]);
  });

  it('is the whole circuit for a net that a supply holds', () => {
    expect(refs(TWO, 'v')).toHaveLength(5);
  });
});
