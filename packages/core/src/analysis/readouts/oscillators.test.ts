import { describe, expect, it } from 'vitest';
import { markedCircuitOf, sessionOf, circuitOf } from '../../testing/circuits.ts';
import { radau } from '../../testing/second-bench/radau.ts';
import { transient } from '../analysis/index.ts';
import { crossingsOf, extremesOf } from '../audio/index.ts';
import { evaluateAll, type ReadoutAnswer } from './index.ts';

const answer = (lines: string, net: string): ReadoutAnswer =>
  evaluateAll(markedCircuitOf(lines), [{ id: 'r', name: 'r', kind: 'rate', net }])[0]!;
function rate(lines: string, net: string): number {
  const found = answer(lines, net);
  if (!found.ok) throw new Error(found.problem.message);
  return found.value;
}
/** Relative distance that a rate may have from a closed form or another way, as the trade measures it: 0.2 %. */
const NEAR = 2e-3;
const isNear = (value: number, expected: number, near = NEAR) =>
  expect(Math.abs(value / expected - 1), `${value} for ${expected}`).toBeLessThan(near);

const RAILS = 'V1 9V vp 0\nV2 9V 0 vm\n';

describe('a Schmitt trigger with an integrator', () => {
  const triangle = (r: string, c: string, model = '') =>
    `${RAILS}U1 ${model} plus=p minus=0 out=s vplus=vp vminus=vm\nU2 ${model} plus=0 minus=m out=t vplus=vp vminus=vm\nR1 10k t p\nR2 20k s p\nR6 ${r} s m\nC1 ${c} m t`;

  it('swings at 1 / (2 R C) with thresholds at half of the rails, over four decades and at every knob', () => {
    for (const c of ['1u', '10u', '100u', '1000u'])
      for (const kilohm of [10, 22, 47, 68, 100])
        isNear(rate(triangle(`${kilohm}k`, c), 't'), 1 / (2 * kilohm * 1e3 * Number.parseFloat(c) * 1e-6));
  });

  it('of real opamps is slower by the time in which they slew: 42.44 kHz where the formula has 50', () => {
    // By a run with steps of 50 ns; docs/physics.md has the opamp's law.
    isNear(rate(triangle('10k', '1n', 'TL072'), 's'), 42_443);
    isNear(rate(triangle('22k', '47n', 'TL072'), 's'), 482.9);
  });

  it('has one rate at either of its nets', () => {
    const lines = triangle('22k', '47n', 'LM358');
    isNear(rate(lines, 's'), rate(lines, 't'), 5e-4);
  });

  it('leaves an exact balance as every real one does', () => {
    isNear(
      rate(
        `${RAILS}U1 plus=p minus=m out=o vplus=vp vminus=vm\nR1 10k o p\nR2 10k p 0\nR3 10k o m\nC1 1u m 0`,
        'o',
      ),
      1 / (2 * 1e-2 * Math.log(3)),
    );
  });
});

describe('a timer', () => {
  const timer = (ctrl: string, more = '') =>
    `V1 9V vcc 0\nTM1 gnd=0 trig=c out=out reset=vcc ctrl=ct thr=c dis=d vcc=vcc\nC2 ${ctrl} ct 0\nR1 10k vcc d\nR2 47k d c\nC1 10n c 0${more}`;

  it('is read when its control voltage has settled, whatever holds that', () => {
    const plain = rate(timer('10n'), 'out');
    isNear(plain, 1 / (Math.LN2 * 104e3 * 10e-9));
    for (const ctrl of ['1u', '10u', '100u', '1000u']) isNear(rate(timer(ctrl), 'out'), plain, 5e-4);
    // Thresholds at 6.5 V and half of it: charge through 57k, discharge through 47k.
    const period = 57e3 * 1e-8 * Math.log((9 - 3.25) / (9 - 6.5)) + 47e3 * 1e-8 * Math.LN2;
    isNear(rate(timer('470u', '\nV3 8V x 0\nR9 10k x ct'), 'out'), 1 / period, 5e-3);
  });

  it('beside another on a stiff supply has a rate of its own, as slow as it is', () => {
    const both = `${timer('10n').replace('R2 47k d c', 'R2 1M d c').replace('C1 10n', 'C1 1u')}\nTM2 gnd=0 trig=e out=out2 reset=vcc ctrl=ct2 thr=e dis=f vcc=vcc\nC4 10n ct2 0\nR3 10k vcc f\nR4 10k f e\nC5 10n e 0`;
    isNear(rate(both, 'out'), 1 / (Math.LN2 * 2.01e6 * 1e-6), 5e-3);
    isNear(rate(both, 'out2'), 1 / (Math.LN2 * 30e3 * 1e-8), 5e-3);
  });
});

describe('a slow timer on a supply that gives way', () => {
  it('has no rate of what a quick one leaves on that supply, however long its own is in coming', () => {
    const both = `V1 9V raw 0
      R9 10 raw vcc
      C9 100u vcc 0
      TM1 gnd=0 trig=c out=out reset=vcc ctrl=ct thr=c dis=d vcc=vcc
      C2 10n ct 0
      R1 10k vcc d
      R2 1M d c
      C1 1u c 0
      TM2 gnd=0 trig=e out=out2 reset=vcc ctrl=ct2 thr=e dis=f vcc=vcc
      C4 10n ct2 0
      R3 10k vcc f
      R4 10k f e
      C5 100n e 0`;
    // As far as a few thousand points reach, some three hundred periods of the quick one: 480 Hz on a net that goes at 0.7.
    let looks = 0;
    const mayGoOn = () => (looks += 1) < 200;
    const readout = { id: 'r', name: 'r', kind: 'rate', net: 'out' } as const;
    const [slow] = evaluateAll(markedCircuitOf(both), [readout], { readouts: [], mayGoOn });
    expect(slow!.ok ? slow!.value : slow!.problem.code).toBe('readout/left-out');
    isNear(rate(both, 'out2'), 1 / (Math.LN2 * 30e3 * 1e-7), 5e-3);
  });
});

describe('an oscillation that is small beside the voltage it rides on', () => {
  const relax = `${RAILS}U1 plus=p minus=m out=o vplus=vp vminus=vm
    R1 10k o p\nR2 10k p 0\nR3 10k o m\nC1 47n m 0`;

  it('has its rate, however slowly a bias beside it settles', () => {
    // 5.95 V with a hundredth of the swing; C7 takes 1.1 s.
    const biased = `${relax}\nR4 1M o x\nR5 10k vp x\nR6 20k x 0\nR7 100k vp b\nR8 100k b 0\nC7 22u b 0\nR9 1M b x`;
    isNear(rate(biased, 'x'), rate(biased, 'o'));
    // Of an opamp that takes no time to turn, 968 Hz.
    isNear(rate(biased, 'x'), 1 / (2 * 47e-5 * Math.log(3)), 1e-2);
  });
});

describe('a flasher of two transistors', () => {
  const [IS, BF, VT, STRAY] = [1e-14, 200, 0.025865, 1e-9];
  const lines = (rl: number, rb: number, c1: number, c2: number) =>
    [
      'V1 9V v 0',
      `R1 ${rl} v c1`,
      `R2 ${rl} v c2`,
      `R3 ${rb} v b1`,
      `R4 ${rb} v b2`,
      `C1 ${c1 * 1e6}u c1 b2`,
      `C2 ${c2 * 1e6}u c2 b1`,
      ...['c1', 'c2', 'b1', 'b2'].map((net, i) => `C${i + 3} ${STRAY * 1e12}p ${net} 0`),
      `Q1 bjt npn c1 b1 0 BF=${BF} BR=1 IS=${IS}`,
      `Q2 bjt npn c2 b2 0 BF=${BF} BR=1 IS=${IS}`,
    ].join('\n');

  /** The period by Radau IIA on the nets c1, c2, b1, b2, after Ebers and Moll (1954). */
  function periodOf(rl: number, rb: number, c1: number, c2: number): number {
    const junction = (v: number) => {
      const e = Math.exp(Math.min(v / VT, 60));
      return [IS * (e - 1), (IS * e) / VT] as const;
    };
    const rates = (x: readonly number[]) => {
      const f = [0, 0, 0, 0];
      const slopes = [0, 1, 2, 3].map(() => [0, 0, 0, 0]);
      for (const i of [0, 1]) {
        const [c, b] = [i, i + 2];
        const [forward, gf] = junction(x[b]!);
        const [back, gr] = junction(x[b]! - x[c]!);
        f[c] = (9 - x[c]!) / rl - (forward - 2 * back);
        f[b] = (9 - x[b]!) / rb - forward / BF - back;
        slopes[c]![c] = -1 / rl - 2 * gr;
        slopes[c]![b] = -gf + 2 * gr;
        slopes[b]![c] = gr;
        slopes[b]![b] = -1 / rb - gf / BF - gr;
      }
      return { f, slopes };
    };
    const c = [
      [c1 + STRAY, 0, 0, -c1],
      [0, c2 + STRAY, -c2, 0],
      [0, -c2, c2 + STRAY, 0],
      [-c1, 0, 0, c1 + STRAY],
    ];
    const about = Math.LN2 * rb * (c1 + c2);
    const h = about / 4000;
    const crossings: number[] = [];
    let [t, before] = [0, 9];
    for (const x of radau({ c, rates }, [9, 0.1, -6, 0.7], h)) {
      if (before < 4.5 && x[0]! >= 4.5) crossings.push(t + (h * (4.5 - before)) / (x[0]! - before));
      [t, before] = [t + h, x[0]!];
      if (crossings.length === 4 || t > 8 * about) break;
    }
    return crossings[3]! - crossings[2]!;
  }

  it('from a microfarad to hundreds has the period that a second way of computing has', () => {
    for (const [rl, rb, c1, c2] of [
      [1000, 47e3, 1e-6, 1e-6],
      [1000, 47e3, 10e-6, 100e-6],
      [470, 22e3, 47e-6, 47e-6],
      [2200, 100e3, 100e-6, 220e-6],
      [680, 47e3, 10e-6, 22e-6],
    ] as const)
      isNear(rate(lines(rl, rb, c1, c2), 'c1') * periodOf(rl, rb, c1, c2), 1, 1e-3);
  });

  it('flips at its time in every period, not only in most: twenty in one run are alike', () => {
    const session = sessionOf(circuitOf(lines(470, 22e3, 47e-6, 47e-6)));
    const node = session.system.node('c1', 'net');
    const trace = { timeS: [] as number[], value: [] as number[] };
    const outcome = transient(session, {
      stopS: 40,
      start: 'op',
      beside: { volt: -2, isOneSided: true },
      onPoint(t, x) {
        trace.timeS.push(t);
        trace.value.push(x[node]!);
      },
    });
    expect(outcome.ok).toBe(true);
    const rising = crossingsOf(trace, 4.5, true).slice(2);
    const periods = rising.slice(1).map((t, i) => t - rising[i]!);
    expect(periods.length).toBeGreaterThan(20);
    for (const periodS of periods) isNear(periodS, periods.at(-1)!, 5e-4);
  });

  it('of a library type swings too, and its nets stay near the supply', () => {
    const real = (rl: string, rb: string, x: string, y: string) =>
      `V1 9V v 0\nR1 ${rl} v c1\nR2 ${rl} v c2\nR3 ${rb} v b1\nR4 ${rb} v b2\nC1 ${x} c1 b2\nC2 ${y} c2 b1\nQ1 2N3904 c1 b1 0\nQ2 2N3904 c2 b2 0`;
    for (const [rb, x, y] of [
      ['47k', '10u', '100u'],
      ['22k', '47u', '47u'],
    ] as const) {
      const session = sessionOf(circuitOf(real('1k', rb, x, y)));
      const seen: number[] = [];
      const outcome = transient(session, {
        stopS: 20,
        start: 'zero',
        onPoint: (_, at) => void seen.push(...session.system.nets().map(([, i]) => at[i]!)),
      });
      expect(outcome.ok).toBe(true);
      const [low, high] = extremesOf(seen);
      expect(low).toBeGreaterThan(-10);
      expect(high).toBeLessThan(10);
      expect(answer(real('1k', rb, x, y), 'c1').ok).toBe(true);
    }
  });
});

describe('what rings and rests', () => {
  it('does not oscillate, whatever its Q', () => {
    for (const ohm of [10, 50, 100, 500]) {
      const found = answer(`V1 9V v 0\nR1 ${ohm} v a\nL1 1H a b\nC1 1u b 0`, 'b');
      expect(!found.ok && found.problem.message).toMatch(/net b does not oscillate/);
    }
    const tank = answer('V1 9V v 0\nR2 1M v a\nL1 100m a 0 dcr=0.1\nC1 1u a 0', 'a');
    expect(!tank.ok && tank.problem.message).toMatch(/does not oscillate/);
  });

  /** Largest distance from a level in the last period before each of some times. */
  function envelope(
    lines: string,
    net: string,
    periodS: number,
    level: number,
    times: readonly number[],
  ): number[] {
    const session = sessionOf(circuitOf(lines));
    const node = session.system.node(net, 'net');
    const [t, v]: [number[], number[]] = [[], []];
    transient(session, {
      stopS: Math.max(...times) * 1.01,
      stepS: periodS / 40,
      start: 'zero',
      onPoint(at, x) {
        t.push(at);
        v.push(x[node]! - level);
      },
    });
    return times.map((end) =>
      Math.max(...v.filter((_, i) => t[i]! > end - periodS && t[i]! <= end).map(Math.abs)),
    );
  }

  it('dies away as R / 2L says, within 1 % of that rate down to a microvolt', () => {
    const periodS = 2 * Math.PI * 1e-3;
    const times = [0.05, 0.1, 0.2, 0.31];
    // Q = 10: 1 H, 1 uF, 100 ohm fall by 50 a second.
    const found = envelope('V1 9V v 0\nR1 100 v a\nL1 1H a b\nC1 1u b 0', 'b', periodS, 9, times);
    for (let i = 1; i < times.length; i += 1)
      isNear(Math.log(found[0]! / found[i]!) / (times[i]! - times[0]!), 50, 0.01);
    expect(found.at(-1)!).toBeLessThan(5e-6);
  });

  it('keeps its Q of 1580 to 1 %, and without losses its swing to 1 % in a hundred periods', () => {
    const periodS = 2 * Math.PI * Math.sqrt(0.1 * 1e-6);
    const [first, last] = envelope(
      'V1 9V v 0\nR2 1M v a\nL1 100m a 0 dcr=0.1\nC1 1u a 0',
      'a',
      periodS,
      9e-7,
      [0.02, 0.42],
    );
    // R / 2L = 0.5 a second, and 1 / 2RC = 0.5 beside.
    isNear(Math.log(first! / last!) / 0.4, 0.5 + 0.5, 0.01);
    const [begin, end] = envelope(
      'V1 9V v 0\nR2 1M v a\nL1 100m a 0\nC1 1u a 0\nR1 1T a 0',
      'a',
      periodS,
      0,
      [2 * periodS, 102 * periodS],
    );
    // Without a loss but the megohm that feeds it.
    isNear(end! / begin!, Math.exp(-0.5 * 100 * periodS), 0.01);
  });
});
