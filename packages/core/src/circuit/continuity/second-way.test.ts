import type { BeepData } from '@zemble/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Part } from '../circuit/index.ts';
import { formNets, retraced } from './index.ts';

const PARTS: readonly Part[] = ['R1', 'R2', 'R3', 'R4'].map((ref) => ({
  ref,
  kind: 'resistor',
  marked: 1000,
  pins: { a: `${ref}a`, b: `${ref}b` },
  saidPins: {},
}));
const ENDS = [...PARTS.flatMap(({ ref }) => [`${ref}.a`, `${ref}.b`]), '0', 'out'];

/** The nets by painting: every end a colour of its own, ends that beep together take one colour, until nothing changes. */
function painted(beeps: readonly BeepData[]): ReadonlyMap<string, number> {
  const colour = new Map(ENDS.map((end, i) => [end, i]));
  for (let isNew = true; isNew;) {
    isNew = false;
    for (const { says, ends, withdrawn } of beeps) {
      if (says !== 'together' || withdrawn === true) continue;
      const least = Math.min(...ends.map((end) => colour.get(end)!));
      for (const end of ends)
        if (colour.get(end) !== least) {
          colour.set(end, least);
          isNew = true;
        }
    }
  }
  return colour;
}

const beep = fc.record({
  says: fc.constantFrom('together' as const, 'apart' as const),
  ends: fc.uniqueArray(fc.constantFrom(...ENDS), { minLength: 2, maxLength: 5 }),
  withdrawn: fc.boolean(),
});

describe('nets, found a second way by painting', () => {
  it('are the same, one entered after the other or all at once', () => {
    fc.assert(
      fc.property(fc.array(beep, { maxLength: 12 }), (beeps) => {
        const colour = painted(beeps);
        let parts = PARTS;
        for (let i = 0; i < beeps.length; i += 1)
          parts = retraced({ ground: '0', parts, beeps: beeps.slice(0, i + 1) });
        expect(parts).toEqual(retraced({ ground: '0', parts: PARTS, beeps }));
        const netOf = (end: string) => {
          const [ref, pin] = end.split('.') as [string, 'a' | 'b'];
          return parts.find((p) => p.ref === ref)!.pins[pin]!;
        };
        const pins = ENDS.filter((end) => end.includes('.'));
        for (const one of pins)
          for (const other of pins)
            expect(netOf(one) === netOf(other), `${one} ${other}`).toBe(
              colour.get(one) === colour.get(other),
            );
        // Two nets never share a name, and what is painted as the ground is called so.
        const { nets } = formNets({ ground: '0', parts: PARTS, beeps });
        expect(new Set(nets.map((n) => n.name)).size).toBe(nets.length);
        for (const pin of pins) expect(netOf(pin) === '0').toBe(colour.get(pin) === colour.get('0'));
      }),
    );
  });
});
