import { describe, expect, it } from 'vitest';
import { resolveLayer, withPlanned } from '../../circuit/changes/index.ts';
import type { Circuit } from '../../circuit/circuit/index.ts';
import { AnalysisSession, spreadParts } from '../../analysis/analysis/index.ts';
import { seededRandom } from '../../base/numeric/index.ts';
import { evaluateReadout, outsideBy, type Readout } from '../../analysis/readouts/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { DrawerChoices } from './drawer-choices.ts';
import { solve, type Proposal, type SolveRequest } from './solver.ts';

const ask = (request: Partial<SolveRequest> & Pick<SolveRequest, 'circuit' | 'readouts' | 'goals' | 'may'>) =>
  solve({ layer: 'marked', series: 'E96', withPairs: false, most: 5, ...request }).proposals;
const valueOf = (proposal: Proposal, ref: string) => proposal.changes.find((c) => c.ref === ref)!.value;

describe('values against closed forms', () => {
  it('are those of a T-pad: 10 dB in 600 ohm is 311.7 and 421.6 ohm', () => {
    // Attenuator table, Reference Data for Radio Engineers (ITT), T-pad 600 ohm: 10 dB, R1 = 311.7, R3 = 421.6.
    const circuit = circuitOf(
      'G1 1V in 0 resistance=600\nR1 500 in m\nR2 500 m out\nR3 500 m 0\nRL1 kind=resistor 600 out 0',
    );
    const [best] = ask({
      circuit,
      readouts: [
        { id: 'loss', name: 'Loss', kind: 'gain', from: 'in', to: 'out', frequencyHz: 1000 },
        { id: 'in', name: 'In', kind: 'inputImpedance', source: 'G1', frequencyHz: 1000 },
        { id: 'out', name: 'Out', kind: 'outputImpedance', net: 'out', frequencyHz: 1000 },
      ],
      goals: [
        { readoutId: 'loss', want: { target: -10, within: 0.2 } },
        { readoutId: 'in', want: { target: 600, within: 12 } },
        // With its load in parallel: half of 600.
        { readoutId: 'out', want: { target: 300, within: 4 } },
      ],
      may: ['R1', 'R2', 'R3'],
    });
    expect(best!.isInside).toBe(true);
    expect(valueOf(best!, 'R1') / 311.7).toBeCloseTo(1, 1);
    expect(valueOf(best!, 'R2') / 311.7).toBeCloseTo(1, 1);
    expect(valueOf(best!, 'R3') / 421.6).toBeCloseTo(1, 1);
  });

  it('are those of an L-pad: 6 dB into 8 ohm is 4 and 8 ohm', () => {
    // L-pad for a constant load: R1 = Z (1 - 1/k), R2 = Z/(k - 1), with k = 10^(dB/20) (same table, L-pads).
    const k = 10 ** (6 / 20);
    const [best] = ask({
      circuit: circuitOf('G1 1V in 0\nR1 10 in out\nR2 10 out 0\nLD1 kind=load 8 out 0'),
      readouts: [
        { id: 'loss', name: 'Loss', kind: 'gain', from: 'in', to: 'out', frequencyHz: 1000 },
        { id: 'in', name: 'In', kind: 'inputImpedance', source: 'G1', frequencyHz: 1000 },
      ],
      goals: [
        { readoutId: 'loss', want: { target: -6, within: 0.1 } },
        { readoutId: 'in', want: { target: 8, within: 0.1 } },
      ],
      may: ['R1', 'R2'],
    });
    expect(valueOf(best!, 'R1') / (8 * (1 - 1 / k))).toBeCloseTo(1, 1);
    expect(valueOf(best!, 'R2') / (8 / (k - 1))).toBeCloseTo(1, 1);
  });

  it('are a Butterworth low pass of second order: C1 = 2 Q^2 C2 for equal resistors', () => {
    // Sallen and Key 1955; Butterworth Q = 0.7071: with R = 10k and 1 kHz, C1 = sqrt2/(w R), C2 = 1/(sqrt2 w R).
    const circuit = circuitOf(`
      V1 15V vp 0
      V2 15V 0 vm
      G1 1V in 0
      R1 10k in a
      R2 10k a b
      C1 10n a out
      C2 10n b 0
      U1 TL072 plus=b minus=out out=out vplus=vp vminus=vm`);
    const at = (id: string, frequencyHz: number): Readout => ({
      id,
      name: id,
      kind: 'gain',
      from: 'in',
      to: 'out',
      frequencyHz,
    });
    const butterworth = (ratio: number) => -10 * Math.log10(1 + ratio ** 4);
    const [best] = ask({
      circuit,
      readouts: [at('corner', 1000), at('knee', 700), at('octave', 2000)],
      goals: [
        { readoutId: 'corner', want: { target: butterworth(1), within: 0.08 } },
        { readoutId: 'knee', want: { target: butterworth(0.7), within: 0.08 } },
        { readoutId: 'octave', want: { target: butterworth(2), within: 0.15 } },
      ],
      may: ['C1', 'C2'],
      withPairs: true,
    });
    const omega = 2 * Math.PI * 1000;
    expect(valueOf(best!, 'C1') / (Math.SQRT2 / (omega * 1e4))).toBeCloseTo(1, 1);
    expect(valueOf(best!, 'C2') / (1 / (Math.SQRT2 * omega * 1e4))).toBeCloseTo(1, 1);
  });

  it('are the two time constants of a shelf, as of 318 and 75 us', () => {
    // One pole and one zero of a disc replay network (IEC 60098): R1 with C1 and R2 below.
    // |H| = R2/(R1+R2) far above: T1 = (R1 + R2) C1 = 318 us, T2 = R2 C1 = 75 us.
    const circuit = circuitOf('G1 1V in 0\nR1 10k in out\nR2 10k out b\nC1 10n b 0');
    const exact = (f: number) => {
      const w = 2 * Math.PI * f;
      return 10 * Math.log10((1 + (w * 75e-6) ** 2) / (1 + (w * 318e-6) ** 2));
    };
    const readouts = [500, 2122].map((f): Readout => ({
      id: `f${f}`,
      name: `${f} Hz`,
      kind: 'gain',
      from: 'in',
      to: 'out',
      frequencyHz: f,
    }));
    const [best] = ask({
      circuit,
      readouts,
      goals: readouts.map((r, i) => ({
        readoutId: r.id,
        want: { target: exact([500, 2122][i]!), within: 0.05 },
      })),
      may: ['R1', 'R2'],
      withPairs: true,
    });
    expect(best!.isInside).toBe(true);
    expect((valueOf(best!, 'R2') * 10e-9) / 75e-6).toBeCloseTo(1, 1);
    expect(((valueOf(best!, 'R1') + valueOf(best!, 'R2')) * 10e-9) / 318e-6).toBeCloseTo(1, 1);
  });

  it('keep what is to stay: a gain by R3, not by what sets the input impedance', () => {
    const circuit = circuitOf(`
      V1 15V vp 0
      V2 15V 0 vm
      G1 10mV in 0
      R1 10k in m
      R3 100k out m
      U1 TL072 plus=0 minus=m out=out vplus=vp vminus=vm`);
    const request = {
      circuit,
      readouts: [
        { id: 'gain', name: 'Gain', kind: 'gain', from: 'in', to: 'out', frequencyHz: 1000 },
        { id: 'zin', name: 'In', kind: 'inputImpedance', source: 'G1', frequencyHz: 1000 },
      ] satisfies Readout[],
      goals: [{ readoutId: 'gain', want: { target: 26, within: 0.3 } }],
      may: ['R1', 'R3'],
      keep: ['zin'],
    };
    for (const { isInside, goals } of ask(request).filter((p) => p.isInside)) {
      expect(isInside).toBe(true);
      expect(Math.abs(goals[1]!.value! / 10_000 - 1)).toBeLessThan(0.101);
    }
    expect(() => ask({ ...request, keep: ['nothing'] })).toThrow('no such readout to keep');
  });

  it('put a wish behind what is firm', () => {
    const circuit = circuitOf('V1 10V a 0\nR1 1k a b\nR2 1k b 0');
    const readouts: Readout[] = [
      { id: 'v', name: 'V', kind: 'voltage', net: 'b' },
      { id: 'i', name: 'I', kind: 'current', part: 'R1' },
    ];
    const [best] = ask({
      circuit,
      readouts,
      goals: [
        { readoutId: 'v', want: { target: 2, within: 0.05 } },
        // One of the two resistors alone can do the first; the second asks for both.
        { readoutId: 'i', want: { max: 1e-3, wish: 10 } },
      ],
      may: ['R1', 'R2'],
    });
    expect(best!.isInside).toBe(true);
    expect(best!.goals.map((g) => g.missBy)).toEqual([0, 0]);
    const [firm] = ask({
      circuit,
      readouts,
      goals: [
        { readoutId: 'v', want: { target: 2, within: 0.05 } },
        { readoutId: 'i', want: { max: 1e-12, wish: 0.01 } },
      ],
      may: ['R1', 'R2'],
    });
    expect(firm!.isInside).toBe(true);
    expect(firm!.goals[1]!.missBy).toBeGreaterThan(0);
    // One part does what is firm: nobody solders a second one for a wish that stays out of reach.
    expect(firm!.changes).toHaveLength(1);
  });
});

describe('the yield of a proposal', () => {
  const circuit = circuitOf(`
    V1 15V vp 0
    V2 15V 0 vm
    G1 10mV in 0
    C1 47n in b
    R1 100k b 0
    U1 TL072 plus=b minus=m out=out vplus=vp vminus=vm
    R2 1k m 0 1%
    R3 10k out m`);
  const readouts: Readout[] = [
    { id: 'gain', name: 'Gain', kind: 'gain', from: 'b', to: 'out', frequencyHz: 1000 },
    { id: 'bass', name: 'Bass', kind: 'corner', from: 'in', to: 'out', side: 'low' },
  ];
  const goals = [
    { readoutId: 'gain', want: { target: 26, within: 0.6 } },
    { readoutId: 'bass', want: { min: 25, max: 37 } },
  ];
  const proposals = ask({ circuit, readouts, goals, may: ['R3', 'C1'], series: 'E24', most: 4 });

  it('is that of computing every build anew', () => {
    expect(proposals.length).toBeGreaterThan(1);
    for (const proposal of proposals.slice(0, 3)) {
      const planned = resolveLayer(
        withPlanned(circuit as Circuit, new Map(proposal.changes.map((c) => [c.ref, c.value]))),
        'planned',
      );
      const session = new AnalysisSession(planned);
      // As they are made: 5 % resistors, a 10 % film capacitor, and R2 as it says.
      const spread = spreadParts(planned, (p) => (p.kind === 'capacitor' ? 0.1 : 0.05));
      const random = seededRandom(7);
      let inside = 0;
      const runs = 2000;
      for (let i = 0; i < runs; i += 1) {
        const values = new Map(spread.map((p) => [p.ref, p.value * (1 + p.tolerance * (2 * random() - 1))]));
        const build = session.with({ values });
        if (
          goals.every(({ readoutId, want }) => {
            const answer = evaluateReadout(
              build,
              readouts.find((r) => r.id === readoutId)!,
            );
            return answer.ok && outsideBy(answer.value, want) === 0;
          })
        )
          inside += 1;
      }
      expect(Math.abs(proposal.yield!.share - inside / runs)).toBeLessThan(0.04);
    }
  });

  it('says when one per cent is worth it', () => {
    const worth = proposals.find((p) => p.yield!.withOnePercent !== null);
    expect(worth!.yield!.advice).toMatch(/^With 1 % for .* % of builds come out inside instead of /);
    expect(worth!.yield!.withOnePercent!).toBeGreaterThan(worth!.yield!.share + 0.09);
  });

  it('says when a pair that agrees is worth it: a gain that hangs on a ratio', () => {
    const all = ask({
      circuit,
      readouts,
      goals: [{ readoutId: 'gain', want: { target: 26, within: 0.15 } }],
      may: ['R2', 'R3'],
      series: 'E24',
    });
    const best = all.find((p) => p.changes.length === 2 && p.yield!.withPair !== null);
    expect(best!.yield!.withPair).toMatchObject({ refs: ['R2', 'R3'] });
    expect(best!.yield!.withPair!.share).toBeCloseTo(1, 1);
  });
});

describe('values from a drawer', () => {
  const circuit = circuitOf('V1 10V a 0\nR1 1k a b\nR2 1k b 0');
  const readouts: Readout[] = [{ id: 'v', name: 'V', kind: 'voltage', net: 'b' }];
  const drawer = [
    { kind: 'resistor', value: 3900, count: 4, place: 'A1' },
    { kind: 'resistor', value: 1700, count: 1, place: 'A2' },
  ] as const;
  const find = (want: { target: number; within: number }) =>
    ask({
      circuit,
      readouts,
      goals: [{ readoutId: 'v', want }],
      may: ['R2'],
      withPairs: true,
      drawer,
      series: 'E24',
    });

  it('come before what must be bought', () => {
    // 10 R2/(R1 + R2) = 7.96 V: 3k9 of the drawer gives it, as 3k9 of the series would.
    expect(find({ target: 7.96, within: 0.05 })[0]!.changes).toMatchObject([{ value: 3900, places: ['A1'] }]);
  });

  it('are made up of two that are there', () => {
    // 5.6 k in series: 8.485 V.
    const pair = find({ target: 8.485, within: 0.02 }).find((p) => p.changes[0]!.made === 'series');
    expect(pair!.changes).toMatchObject([{ of: [3900, 1700], places: ['A1', 'A2'] }]);
  });

  it('come with the nearest first, whether there or to be bought', () => {
    const parts = new Map(resolveLayer(circuit, 'marked').parts.map((p) => [p.ref, p]));
    const nearest = (exact: number) =>
      new DrawerChoices(parts, 'E24', drawer).nearest('R2', exact).map((c) => c.value);
    expect(nearest(3850)[0]).toBe(3900);
    expect(nearest(3400)[0]).toBe(3300);
    expect(nearest(1720)[0]).toBe(1700);
  });

  it('bear what will stand across them, with a margin', () => {
    // 24 V across the capacitor: 25 V is too little, 50 V is half as much again and more.
    const coupled = circuitOf('V1 24V a 0\nR1 10k a b\nC1 100n b 0\nR2 1M b 0');
    const [best] = ask({
      circuit: coupled,
      readouts: [{ id: 'f', name: 'F', kind: 'corner', from: 'V1', to: 'b', side: 'high', referenceHz: 1 }],
      goals: [{ readoutId: 'f', want: { target: 34, within: 3 } }],
      may: ['C1'],
      drawer: [
        { kind: 'capacitor', value: 470e-9, voltage: 25, count: 1, place: 'low' },
        { kind: 'capacitor', value: 470e-9, voltage: 50, count: 1, place: 'high' },
      ],
    });
    expect(best!.changes).toMatchObject([{ value: 470e-9, places: ['high'] }]);
  });

  it('say what must be bought', () => {
    const [best] = find({ target: 9, within: 0.02 });
    expect(best!.changes).toMatchObject([{ value: 9100, places: [null] }]);
  });
});
