import { larkDiscPreamp } from '@zemble/demo';
import { describe, expect, it } from 'vitest';
import { expectInCircuit, harmOf, judgeAll } from './measuring.ts';

const { document } = larkDiscPreamp;
const one = (
  ref: string,
  value: number,
  condition: 'in circuit' | 'leg lifted',
  aspect: string | null = null,
) => ({
  key: `${ref} ${aspect ?? ''}`.trim(),
  ref,
  value,
  condition,
  aspect,
});

describe('what a worker says of readings', () => {
  it('judges values in circuit and what is read beside them, each under its key', () => {
    const verdicts = new Map(
      judgeAll({
        document,
        readings: [
          one('C106', 4.05e-9, 'in circuit'),
          one('C106', 9e-9, 'in circuit'),
          one('Q101', 0.7, 'leg lifted', 'b-e'),
          one('X9', 1, 'in circuit'),
        ],
      }),
    );
    expect([...verdicts.keys()]).toEqual(['C106', 'Q101 b-e']);
    expect(verdicts.get('C106')!.sentence).toContain('the part itself is between');
    expect(verdicts.get('Q101 b-e')!.kind).toBe('in');
  });

  it('says what a meter would show across a part, and nothing where no meter reads it', () => {
    expect(expectInCircuit({ document, ref: 'R102' })).toMatchObject({
      words: expect.stringMatching(/^about 220 kΩ/) as string,
      reason: expect.stringContaining('R102 is 220 kΩ') as string,
    });
    expect(expectInCircuit({ document, ref: 'Q101' })).toBeNull();
    expect(expectInCircuit({ document, ref: 'X9' })).toBeNull();
  });

  it('weighs the drifts of the document it is given', () => {
    const drifted = {
      ...document,
      circuit: {
        ...document.circuit,
        parts: document.circuit.parts.map((p) => (p.ref === 'R104' ? { ...p, found: 1120 } : p)),
      },
    };
    expect(harmOf(document, false).drifts).toEqual([]);
    const { drifts, replacement } = harmOf(drifted, false);
    expect(drifts.map((d) => d.ref)).toEqual(['R104']);
    expect(replacement.refs).toEqual(['R104']);
  });
});
