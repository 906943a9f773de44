import type { EvidenceData, IntakeData, PathData } from '@zemble/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../base/numeric/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { contradictions, readEvidence, type Observation } from './evidence.ts';
import { preparePath } from './path.ts';
import { searchState } from './search.ts';
import { modeShares, PAIR_SHARE, posteriorOf } from './suspects.ts';
import { FAULT_MODES, SYMPTOMS } from './symptom.ts';
import { weightsFor } from './weights.ts';
import { pathFromText } from './templates.ts';
import { PROVED, chain, saw, unitOf } from '../../testing/chains.ts';

const OUTPUT = FAULT_MODES.indexOf('output');

/** Posterior marginals by plain enumeration of every single fault and pair in every mode, from the definitions. */
function bruteForce(path: ReturnType<typeof preparePath>, observations: readonly Observation[]): number[] {
  const n = path.blocks.length;
  const weights = path.blocks.map((b) => b.weight);
  const total = weights.reduce((a, b) => a + b, 0);
  const symptom = (o: Observation, block: number, mode: number) => {
    const m = FAULT_MODES[mode]!;
    if (m === 'drags') return o.dragged[block] ? 'none' : 'good';
    if (m === 'sags') return o.relevant[block] && o.relieved[block]! < 0.5 ? 'none' : 'good';
    return o.relevant[block] ? m : 'good';
  };
  /** A supply that cannot bear its load, alone: it bears what is left of it with a chance. */
  const sagging = (o: Observation, block: number) => {
    const relief = o.relevant[block] ? o.relieved[block]! : 1;
    return relief * o.likelihood[rank('good')]! + (1 - relief) * o.likelihood[rank('none')]!;
  };
  const rank = (s: string) => SYMPTOMS.indexOf(s as never);
  const marginal = new Array<number>(n).fill(0);
  let evidence = 0;
  let pairTotal = 0;
  for (let a = 0; a < n; a += 1) for (let b = a + 1; b < n; b += 1) pairTotal += weights[a]! * weights[b]!;
  for (let a = 0; a < n; a += 1) {
    for (let b = a; b < n; b += 1) {
      const prior =
        a === b
          ? ((1 - PAIR_SHARE) * weights[a]!) / total
          : (PAIR_SHARE * weights[a]! * weights[b]!) / pairTotal;
      let likelihood = 0;
      // One dead output of several, whichever, of a block that failed alone.
      const outputs = path.outputsOf(a);
      const ofOne = modeShares(path, a)[OUTPUT]!;
      if (a === b && ofOne > 0)
        for (const output of outputs)
          likelihood +=
            (ofOne / outputs.length) *
            observations.reduce((p, o) => p * o.likelihood[rank(o.links.has(output) ? 'none' : 'good')]!, 1);
      const whole = (block: number) => {
        const shares = modeShares(path, block);
        return shares.map((s, m) => (m === OUTPUT ? 0 : a === b ? s : s / (1 - shares[OUTPUT]!)));
      };
      whole(a).forEach((pa, ma) =>
        whole(b).forEach((pb, mb) => {
          if ((a === b && ma !== mb) || pa === 0 || pb === 0) return;
          const share = a === b ? pa : pa * pb;
          const product = observations.reduce((p, o) => {
            if (a === b && FAULT_MODES[ma] === 'sags') return p * sagging(o, a);
            const worst = Math.max(rank(symptom(o, a, ma)), rank(symptom(o, b, mb)));
            return p * o.likelihood[worst]!;
          }, 1);
          likelihood += share * product;
        }),
      );
      evidence += prior * likelihood;
      marginal[a]! += prior * likelihood;
      if (a !== b) marginal[b]! += prior * likelihood;
    }
  }
  return marginal.map((m) => m / evidence);
}

/** A random acyclic path of up to eight blocks with supplies, and random evidence on it. */
const randomSearch = fc
  .record({
    n: fc.integer({ min: 2, max: 8 }),
    seed: fc.integer({ min: 1, max: 1_000_000 }),
    tests: fc.integer({ min: 0, max: 8 }),
  })
  .map(({ n, seed, tests }) => {
    const random = seededRandom(seed);
    const kinds = ['stage', 'cable', 'supply', 'block', 'speaker'];
    const data = chain(n, () => ({
      kind: kinds[Math.floor(random() * kinds.length)]!,
      prior: 0.5 + 3 * random(),
    }));
    const carries = ['audio', 'supply', 'clock', 'control'] as const;
    const extra = Array.from({ length: n }, () => {
      const from = Math.floor(random() * (n - 1));
      const to = from + 1 + Math.floor(random() * (n - 1 - from));
      return { from: `b${from}`, to: `b${to}`, carries: carries[Math.floor(random() * 4)]! };
    });
    const path = preparePath({ ...data, links: [...data.links, ...extra] });
    const evidence = Array.from({ length: tests }, () =>
      saw(`b${Math.floor(random() * n)}`, SYMPTOMS[Math.floor(random() * 5)]!, {
        conditions: [
          ...(random() < 0.3 ? ['probe proved'] : []),
          ...(random() < 0.4 ? [`disconnected: b${Math.floor(random() * n)}`] : []),
          ...(random() < 0.1 ? ['unloaded'] : []),
        ],
      }),
    );
    return { path, observations: readEvidence(path, evidence).observations };
  });

describe('posterior', () => {
  it('equals the enumeration of every single fault and pair in every mode', () => {
    fc.assert(
      fc.property(randomSearch, ({ path, observations }) => {
        const expected = bruteForce(path, observations);
        const { marginal } = posteriorOf(path, observations);
        marginal.forEach((p, b) => expect(p).toBeCloseTo(expected[b]!, 9));
      }),
      { numRuns: 150, seed: 5 },
    );
  });

  it('does not depend on the order in which things were seen, once the probe is proved', () => {
    fc.assert(
      fc.property(randomSearch, ({ path, observations }) => {
        const forwards = posteriorOf(path, observations).marginal;
        const backwards = posteriorOf(path, [...observations].reverse()).marginal;
        forwards.forEach((p, b) => expect(backwards[b]).toBeCloseTo(p, 9));
      }),
      { numRuns: 40, seed: 6 },
    );
  });

  it('clears what comes before a good point and suspects what lies between good and bad (common practice)', () => {
    const path = chain(5);
    const { suspects } = searchState(preparePath(path), unitOf(path, [saw('b1', 'good'), saw('b2', 'none')]));
    expect(suspects[0]!.block).toBe(2);
    expect(suspects[0]!.probability).toBeGreaterThan(0.9);
    expect(suspects[0]!.why).toContain('was bad and depends on b2');
  });

  it('raises what several dead paths share, not each of them', () => {
    const path = pathFromText(
      `p Supply, supply
       a One, stage
       b Two, stage
       c Three, stage`,
      'supply: p > a b c',
    );
    const evidence = ['a', 'b', 'c'].map((at) => saw(at, 'none', PROVED));
    const { suspects } = searchState(preparePath(path), unitOf(path, evidence));
    expect(suspects[0]!.block).toBe(0);
    expect(suspects[0]!.probability).toBeGreaterThan(0.6);
  });

  it('tells a dead supply from a load that drags it down by taking the load off', () => {
    const path = pathFromText(
      `p Supply, supply
       a One, stage
       b Two, stage`,
      'supply: p > a b',
    );
    const low = [saw('p', 'low', PROVED)];
    const before = searchState(preparePath(path), unitOf(path, low)).suspects;
    const after = searchState(
      preparePath(path),
      unitOf(path, [...low, saw('p', 'high', { conditions: ['disconnected: b'] })]),
    ).suspects;
    expect(before[0]!.block).toBe(0);
    expect(after[0]!.block).toBe(2);
  });

  describe('a rail that is dead, and back when the power amplifier is unplugged', () => {
    const data = pathFromText(
      `adapter Adapter, adapter
         reg Regulator, regulator
         pre Preamplifier, stage
         mix Mixer, mixer
         amp Power amplifier, power amplifier
         spk Speaker, speaker`,
      `audio: pre > mix > amp > spk
         supply: adapter > reg > pre mix amp`,
    );
    const path = preparePath(data);
    const dead = saw('reg->amp', 'none', PROVED);
    const back = saw('reg->amp', 'good', { conditions: ['disconnected: amp'] });
    const search = (evidence: EvidenceData[]) => searchState(path, unitOf(data, evidence));
    const of = (state: ReturnType<typeof search>, id: string) =>
      state.suspects.find((s) => s.block === path.indexOf(id))!;

    it('convicts the amplifier or its wiring, or the supply that cannot bear its load, and nothing else', () => {
      const state = search([dead, back]);
      expect(state.suspects[0]!.block).toBe(path.indexOf('amp'));
      // Alone; a second fault beside the one found is never ruled out.
      const alone = (id: string) => state.posterior.single[path.indexOf(id)!]!;
      const all = state.posterior.single.reduce((sum, p) => sum + p, 0);
      for (const id of ['pre', 'mix', 'spk']) expect(alone(id) / all, id).toBeLessThan(0.04);
      expect((alone('amp') + alone('reg') + alone('adapter')) / all).toBeGreaterThan(0.9);
      expect(alone('amp') / all).toBeGreaterThan(0.7);
      expect(of(state, 'amp').why).toBe(
        'Regulator to Power amplifier was bad, and right as Regulator to Power amplifier (with Power amplifier disconnected): Power amplifier, or its wiring, drags the supply down.',
      );
      expect(of(state, 'reg').why).toContain('Regulator may not bear its load');
      // Of the supplies only that is left which taking the load off can mend.
      const modes = state.posterior.modes[path.indexOf('reg')!]!;
      expect(modes[FAULT_MODES.indexOf('sags')]).toBeGreaterThan(0.7);
    });

    it('is no contradiction: the unit stood otherwise', () => {
      expect(search([dead, back]).contradictions).toEqual([]);
      // Otherwise at another place, which hangs on the same, and the unit standing alike.
      const before = [saw('adapter', 'none', PROVED), saw('reg->amp', 'good')];
      expect(search(before).contradictions).toHaveLength(1);
    });

    it('is what is asked once the rail is found dead, load by load', () => {
      const { next, offered } = search([dead]);
      const asked = offered.filter((t) => t.conditions?.[0]?.startsWith('disconnected'));
      expect(asked.map((t) => t.conditions![0])).toEqual([
        'disconnected: pre',
        'disconnected: mix',
        'disconnected: amp',
      ]);
      expect(next.map((n) => n.test.id)).toContain('reg->amp, amp disconnected');
      expect(search([]).offered.some((t) => t.how === 'trace' && t.conditions !== undefined)).toBe(false);
    });

    it('says nothing where what was disconnected is needed to get there', () => {
      const { ignored } = search([saw('spk', 'none', { conditions: ['disconnected: amp'] })]);
      expect(ignored[0]!.reason).toBe('Power amplifier is disconnected, and nothing gets there without it');
    });
  });

  it('never explains a dead left branch by the right one, though both go through one selector', () => {
    const path = pathFromText(
      `preL Left preamplifier, stage
       preR Right preamplifier, stage
       sel Selector, switch
       powL Left power amplifier, power amplifier
       powR Right power amplifier, power amplifier`,
      `audio: preL > sel > powL
       audio: preR > sel > powR`,
    );
    const named = searchState(preparePath(path), unitOf(path, [saw('powL', 'none', PROVED)]));
    const right = (state: typeof named) =>
      state.suspects.filter((s) => [1, 4].includes(s.block)).map((s) => s.probability);
    for (const p of right(named)) expect(p).toBeLessThan(0.05);
    // By twins, where the names say nothing.
    const plain: PathData = {
      ...path,
      blocks: path.blocks.map((b) => ({ ...b, name: b.id })),
      twins: [
        ['preL', 'preR'],
        ['powL', 'powR'],
      ],
    };
    const twins = searchState(preparePath(plain), unitOf(plain, [saw('powL', 'none', PROVED)]));
    for (const p of right(twins)) expect(p).toBeLessThan(0.05);
    expect(preparePath(path).relevant(4, { injectedAt: 0 })).toBeNull();
  });

  it('counts a first bad finding less while the probe is not proved', () => {
    const path = chain(4);
    const of = (evidence: EvidenceData[]) =>
      posteriorOf(preparePath(path), readEvidence(preparePath(path), evidence).observations).marginal[0]!;
    expect(of([saw('b0', 'none')])).toBeLessThan(of([saw('b0', 'none', PROVED)]));
  });

  it('lets an intermittent fault hide: a good finding clears less', () => {
    const path = chain(4);
    const clearing = (intermittent: boolean) => {
      const unit = { ...unitOf(path, [saw('b1', 'good')]), intake: { intermittent } };
      return searchState(preparePath(path), unit).posterior.marginal[0]!;
    };
    expect(clearing(true)).toBeGreaterThan(3 * clearing(false));
  });

  it('takes what was withdrawn back, and says what it cannot use', () => {
    const path = chain(4);
    const search = searchState(
      preparePath(path),
      unitOf(path, [saw('b1', 'good', { withdrawn: true }), saw('nowhere', 'good')]),
    );
    expect(search.observations).toHaveLength(0);
    expect(search.ignored[0]!.reason).toBe('there is no point, net or block "nowhere"');
  });

  it('says which two tests cannot both be right, and which to repeat', () => {
    const path = preparePath(chain(4));
    const { observations } = readEvidence(path, [saw('b3', 'good'), saw('b1', 'none')]);
    expect(contradictions(observations).map((c) => c.sentence)).toEqual([
      'output of b1 was bad, yet output of b3, which comes after it, was good: they cannot both be right. Repeat the cheaper one, output of b3.',
    ]);
    expect(contradictions(readEvidence(path, [saw('b1', 'good'), saw('b3', 'none')]).observations)).toEqual(
      [],
    );
  });

  it('judges a voltage against the circuit: near the computed bias is good, none of it is nothing', () => {
    const circuit = circuitOf('V1 9V vcc 0\nR1 10k vcc a\nR2 10k a 0');
    const data: PathData = {
      blocks: [
        { id: 'psu', kind: 'supply', parts: ['V1'] },
        { id: 'div', parts: ['R1', 'R2'] },
      ],
      links: [{ from: 'psu', to: 'div', carries: 'supply' }],
      testPoints: [{ id: 'mid', net: 'a' }],
    };
    const search = (value: number) =>
      searchState(preparePath(data, circuit), {
        ...unitOf(data, [saw('mid', { value, unit: 'V' }, PROVED)]),
        circuit,
      }).observations[0]!.seen;
    expect([search(4.4), search(0.02), search(7)]).toEqual(['good', 'none', 'bad']);
  });
});

describe('twin channels', () => {
  const data: PathData = {
    ...pathFromText(
      `l Left, stage
       r Right, stage
       lo Left out, stage
       ro Right out, stage`,
      `audio: l > lo
       audio: r > ro`,
    ),
    twins: [
      ['l', 'r'],
      ['lo', 'ro'],
    ],
  };
  const seenAt = (evidence: EvidenceData[]) =>
    searchState(preparePath(data), unitOf(data, evidence)).observations.map((o) => [o.evidence.at, o.seen]);

  it('take the good channel’s reading as what is expected at the corresponding point', () => {
    const volts = (at: string, value: number) => saw(at, { value, unit: 'V' }, PROVED);
    expect(seenAt([volts('r->ro', 4.2), volts('l->lo', 4.3)])).toEqual([
      ['r->ro', 'good'],
      ['l->lo', 'good'],
    ]);
    expect(seenAt([volts('r->ro', 4.2), volts('l->lo', 0.1)])).toContainEqual(['l->lo', 'none']);
    // Without the other channel there is nothing to compare with.
    expect(seenAt([volts('l->lo', 0.1)])).toEqual([]);
  });

  it('pair points on the links between the twins of their blocks', () => {
    const path = preparePath(data);
    expect(path.twinOf(path.pointNamed('l->lo')!)!.id).toBe('r->ro');
  });
});

describe('weights', () => {
  it('grow with age where there are electrolytics, with notes of others, own repairs and what is heard', () => {
    const circuit = circuitOf('C1 100u polarised a 0\nR1 1k a 0\nR2 1k b 0');
    const path: PathData = {
      blocks: [
        { id: 'wet', kind: 'stage', parts: ['C1', 'R1'] },
        { id: 'dry', kind: 'stage', parts: ['R2'] },
      ],
      links: [],
    };
    const ratio = (intake: IntakeData, history = {}) => {
      const unit = { ...unitOf(path), circuit, intake };
      const [wet, dry] = weightsFor(preparePath(path, circuit), unit, history);
      return wet! / dry!;
    };
    expect(ratio({ ageYears: 40 })).toBeCloseTo(3 * ratio({}), 9);
    expect(ratio({ notes: [{ text: 'x', ref: 'C1', weight: 5 }] })).toBeCloseTo(5 * ratio({}), 9);
    const withKinds = preparePath({
      blocks: [
        { id: 's', kind: 'supply' },
        { id: 'j', kind: 'socket' },
      ],
      links: [],
    });
    const supply = (intake: IntakeData, history = {}) => {
      const [s, j] = weightsFor(withKinds, { ...unitOf(path), intake }, history);
      return s! / j!;
    };
    expect(supply({ heard: ['hum'] })).toBeGreaterThan(supply({ heard: ['nothing'] }));
    expect(supply({}, { supply: 4 })).toBeCloseTo(2 * supply({}), 9);
    expect(supply({ checks: { headphone: 'fine' } })).toBeGreaterThan(5 * supply({}));
  });
});

describe('injection', () => {
  const path = preparePath(
    pathFromText(
      `p Supply, supply
       a One, stage
       b Two, stage
       c Three, stage`,
      `audio: a > b > c
       supply: p > a b`,
    ),
  );
  const shown = (at: string, from?: string) => {
    const mask = path.relevant(
      path.indexOf(at)!,
      from === undefined ? {} : { injectedAt: path.indexOf(from) },
    );
    return mask && path.blocks.filter((_, i) => mask[i] === 1).map((b) => b.id);
  };
  it('leaves out what comes before the tone, and keeps what the path depends on', () => {
    expect(shown('c')).toEqual(['p', 'a', 'b', 'c']);
    expect(shown('c', 'b')).toEqual(['p', 'b', 'c']);
    expect(shown('c', 'c')).toEqual(['c']);
    expect(shown('a', 'b')).toBeNull();
  });
});
