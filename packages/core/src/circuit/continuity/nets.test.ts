import type { BeepData } from '@zemble/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../changes/index.ts';
import type { Circuit, Part } from '../circuit/index.ts';
import { parseTraceLine } from '../../sheet/sheet/index.ts';
import {
  contradictionsOf,
  formNets,
  retraced,
  throughQuestions,
  tracedNames,
  type Traceable,
} from './index.ts';

/** Types lines as on the bench, one after the other. */
function traceOf(lines: string): Traceable & { readonly beeps: BeepData[] } {
  const parts: Part[] = [];
  const beeps: BeepData[] = [];
  for (const line of lines
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)) {
    const read = parseTraceLine(line, { ground: '0', parts, beeps });
    if (!read.ok) throw new Error(`${line}: ${read.problem.message}`);
    if (read.kind === 'parts') parts.push(...read.parts);
    else beeps.push(read.beep);
  }
  return { ground: '0', parts, beeps };
}
const pinsOf = (traced: Traceable, ref: string) => formNets(traced).pins.get(ref);

const STAGE = `
  R7 47k
  R8 1k
  C3 100n
  Q2 2N3904
`;

describe('nets from beeps', () => {
  it('are called after what they are until they are named', () => {
    const begun = traceOf(`${STAGE} C3.1 Q2.b R7.1`);
    expect(pinsOf(begun, 'R7')).toEqual({ a: 'Q2b', b: 'R7b' });
    expect(pinsOf(begun, 'C3')).toEqual({ a: 'Q2b', b: 'C3b' });
    const named = traceOf(`${STAGE} C3.1 Q2.b R7.1
      gnd Q2.e
      base C3.1`);
    expect(pinsOf(named, 'Q2')).toEqual({ c: 'Q2c', b: 'base', e: '0' });
  });

  it('share the supply pins of a package, which are vcc and vee', () => {
    const traced = traceOf(`U1 TL072
      U1.8 U1.3`);
    expect(traced.parts.map((p) => p.ref)).toEqual(['U1A', 'U1B']);
    expect(pinsOf(traced, 'U1A')).toMatchObject({ plus: 'vcc', vplus: 'vcc', vminus: 'vee' });
    expect(pinsOf(traced, 'U1B')).toMatchObject({ vplus: 'vcc', vminus: 'vee' });
  });

  it('keep the nets that were said, the first of two names holding and the other one known', () => {
    const traced: Traceable = {
      ...traceOf('R1 1k\nR2 2k'),
      parts: traceOf('R1 1k\nR2 2k').parts.map((p) => ({
        ...p,
        pins: p.ref === 'R1' ? { a: 'in', b: 'n1' } : { a: 'tip', b: 'n2' },
        saidPins: undefined,
      })),
      beeps: [{ says: 'together', ends: ['R1.a', 'R2.a'] }],
    };
    const parts = retraced(traced);
    expect(parts.map((p) => p.pins)).toEqual([
      { a: 'in', b: 'n1' },
      { a: 'in', b: 'n2' },
    ]);
    expect(tracedNames(traced).get('tip')).toBe('in');
    // Withdrawn, all is as it was.
    const before = retraced({ ...traced, parts, beeps: [{ ...traced.beeps![0]!, withdrawn: true }] });
    expect(before.map((p) => [p.pins, p.saidPins])).toEqual(traced.parts.map((p) => [p.pins, undefined]));
  });

  it('are found under every name they have gone by, so that a readout of one stands', () => {
    const circuit: Circuit = { ...traceOf(`${STAGE} C3.1 Q2.b\nC3.1 gnd`), ground: '0' };
    const layer = resolveLayer({ ...circuit, parts: retraced(circuit) }, 'marked');
    for (const name of ['Q2b', 'C3a']) expect(layer.renamed?.get(name)).toBe('0');
  });

  it('do not depend on the order of the beeps, but for which name holds', () => {
    const lines = ['C3.1 Q2.b', 'R7.1 Q2.b', 'R8.2 gnd', 'R8.1 Q2.e', 'R7.2 Q2.c'];
    fc.assert(
      fc.property(fc.shuffledSubarray(lines, { minLength: lines.length }), (order) => {
        const names = formNets(traceOf([STAGE, ...order].join('\n'))).nets.map((n) => [n.name, ...n.pins]);
        expect(names).toEqual(
          formNets(traceOf([STAGE, ...lines].join('\n'))).nets.map((n) => [n.name, ...n.pins]),
        );
      }),
    );
  });

  it('never lose a name that something was read at, whatever beeps after it', () => {
    const { parts } = traceOf(`${STAGE} U1 TL072\nV1 9V\nJ1 jack`);
    const ends = [
      ...parts.flatMap((p) => Object.keys(p.pins).map((pin) => `${p.ref}.${pin}`)),
      '0',
      'out',
      'vcc',
    ];
    const beep = fc.record({
      says: fc.constantFrom('together' as const, 'apart' as const, 'one of' as const),
      ends: fc.uniqueArray(fc.constantFrom(...ends), { minLength: 2, maxLength: 4 }),
    });
    const known = (beeps: readonly BeepData[]) => {
      const { nets, renamed } = formNets({ ground: '0', parts, beeps });
      return new Set([...nets.map((n) => n.name), ...renamed.keys(), ...renamed.values()]);
    };
    fc.assert(
      fc.property(fc.array(beep, { minLength: 1, maxLength: 10 }), (beeps) => {
        const [before, after] = [known(beeps.slice(0, -1)), known(beeps)];
        expect([...before].filter((name) => !after.has(name))).toEqual([]);
      }),
    );
  });

  it('keep a name that one of several was, when that one beeps no longer', () => {
    const { parts } = traceOf(STAGE);
    const beeps: BeepData[] = [
      { says: 'one of', ends: ['R7.a', 'out'] },
      { says: 'apart', ends: ['out', 'R7.a'] },
    ];
    const { nets, renamed } = formNets({ ground: '0', parts, beeps });
    const now = nets.find((n) => n.pins.includes('R7.a'))!.name;
    expect(renamed.get('out')).toBe(now);
  });

  it('come back exactly when a beep is withdrawn, whichever it was', () => {
    const pins = ['R7.a', 'R7.b', 'R8.a', 'R8.b', 'C3.a', 'C3.b', 'Q2.c', 'Q2.b', 'Q2.e', '0', 'out'];
    const beep = fc.record({
      says: fc.constantFrom('together' as const, 'apart' as const, 'one of' as const),
      ends: fc.uniqueArray(fc.constantFrom(...pins), { minLength: 2, maxLength: 4 }),
    });
    const { parts } = traceOf(STAGE);
    fc.assert(
      fc.property(
        fc.array(beep, { maxLength: 8 }),
        fc.array(beep, { maxLength: 3 }),
        beep,
        (before, after, one) => {
          const without = retraced({ ground: '0', parts, beeps: [...before, ...after] });
          const withIt = retraced({ ground: '0', parts: without, beeps: [...before, one, ...after] });
          const again = retraced({
            ground: '0',
            parts: withIt,
            beeps: [...before, { ...one, withdrawn: true }, ...after],
          });
          expect(again).toEqual(without);
        },
      ),
    );
  });
});

describe('contradictions', () => {
  it('are told with the chain that makes them', () => {
    const traced = traceOf(`${STAGE}
      R7.1 # C3.1
      C3.1 Q2.b
      Q2.b R7.1`);
    expect(contradictionsOf(traced, formNets(traced))).toEqual([
      {
        kind: 'joined',
        sentence:
          'R7.a does not beep with C3.a, it was said; but R7.a beeps with Q2.b, which beeps with C3.a.',
        beeps: [2, 1, 0],
      },
    ]);
  });

  it('are found in a sweep of which nothing is left', () => {
    const traced = traceOf(`${STAGE}
      C3.1 | Q2.b R7.1
      C3.1 # Q2.b
      C3.1 # R7.1`);
    expect(contradictionsOf(traced, formNets(traced))[0]).toMatchObject({
      kind: 'none left',
      beeps: [2, 1, 0],
    });
  });

  it('say that a part is bridged, or both supply pins one', () => {
    const traced = traceOf(`${STAGE} U1 TL071
      R7.1 R7.2
      U1.vplus gnd
      U1.vminus gnd`);
    expect(contradictionsOf(traced, formNets(traced)).map((c) => c.kind)).toEqual(['supply', 'bridged']);
  });
});

describe('what is left of several', () => {
  it('is joined once the others are known to be apart, and says why', () => {
    const traced = traceOf(`${STAGE}
      C3.1 | Q2.b R7.1 R8.1
      C3.1 # Q2.b
      C3.1 # R8.1`);
    const nets = formNets(traced);
    expect(nets.pins.get('R7')!.a).toBe(nets.pins.get('C3')!.a);
    expect([...nets.concluded]).toEqual(['C3.a']);
    // Heard with it, it is a finding and no conclusion.
    const heard = [...traced.beeps, { says: 'together' as const, ends: ['C3.a', 'R7.a'] }];
    expect([...formNets({ ...traced, beeps: heard }).concluded]).toEqual([]);
    expect(nets.graph.chain('C3.a', 'R7.a')).toEqual([
      { from: 'C3.a', to: 'R7.a', why: { by: 'elimination', beep: 0 } },
    ]);
  });
});

describe('a beep through a part of low resistance', () => {
  const COIL = `${STAGE}
    L1 1m
    L1.1 R7.1
    L1.2 R8.1
    R7.1 R8.1`;

  it('is asked about, and not about a resistor that no tester beeps through', () => {
    const traced = traceOf(COIL);
    expect(throughQuestions(traced, formNets(traced))).toMatchObject([{ beep: 2, ref: 'L1' }]);
    const large = traceOf(COIL.replace('L1 1m', 'R9 1k').replaceAll('L1', 'R9'));
    expect(throughQuestions(large, formNets(large))).toEqual([]);
    expect(contradictionsOf(large, formNets(large)).map((c) => c.kind)).toEqual(['bridged']);
  });

  it('joins nothing once it is said to go through, and all once it is not', () => {
    const traced = traceOf(COIL);
    const answered = (through: string | null) => {
      const beeps = traced.beeps.map((b, i) => (i === 2 ? { ...b, through } : b));
      return { ...traced, beeps };
    };
    const through = formNets(answered('L1'));
    expect(through.pins.get('R7')!.a).not.toBe(through.pins.get('R8')!.a);
    expect(throughQuestions(answered('L1'), through)).toEqual([]);
    const direct = formNets(answered(null));
    expect(direct.pins.get('R7')!.a).toBe(direct.pins.get('R8')!.a);
    // Then it is another beep of the ring that went through it, and each is asked about; the part is bridged where none did.
    expect(throughQuestions(answered(null), direct)).toMatchObject([{ beep: 1, ref: 'L1' }]);
    const all = { ...traced, beeps: traced.beeps.map((b) => ({ ...b, through: null })) };
    expect(throughQuestions(all, formNets(all))).toEqual([]);
  });
});
