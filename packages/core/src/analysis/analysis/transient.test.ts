import * as mathjs from 'mathjs';
import { describe, expect, it } from 'vitest';
import { oscillationOf, type Trace } from '../audio/index.ts';
import type { Circuit } from '../../circuit/circuit/index.ts';
import { THERMAL_VOLTAGE } from '../../circuit/devices/index.ts';
import { circuitOf, randomCircuit, sessionOf } from '../../testing/circuits.ts';
import { magnitude } from './small-signal.ts';
import { transient, type TransientOptions } from './transient.ts';

function run(circuit: Circuit, net: string, options: Omit<TransientOptions, 'onPoint'>): Trace {
  const model = sessionOf(circuit);
  const node = model.system.node(net);
  const [timeS, value]: [number[], number[]] = [[], []];
  const outcome = transient(model, {
    ...options,
    onPoint(t, x) {
      timeS.push(t);
      value.push(x[node]!);
    },
  });
  if (!outcome.ok) throw new Error(outcome.problem.message);
  return { timeS, value };
}
const worst = ({ timeS, value }: Trace, exact: (t: number) => number) =>
  Math.max(...timeS.map((t, i) => Math.abs(value[i]! - exact(t))));

describe('transient, closed forms', () => {
  it('charges a capacitor from empty', () => {
    const trace = run(circuitOf('V1 1V vcc 0\nR1 1k vcc a\nC1 1u a 0'), 'a', { stopS: 5e-3, start: 'zero' });
    expect(worst(trace, (t) => 1 - Math.exp(-t / 1e-3))).toBeLessThan(1e-4);
  });

  it('rings as R, L and C do', () => {
    const [r, l, c] = [10, 10e-3, 1e-6];
    const decay = r / 2 / l;
    const omega = Math.sqrt(1 / (l * c) - decay * decay);
    const trace = run(circuitOf('V1 1V vcc 0\nL1 10m vcc a\nR1 10 a b\nC1 1u b 0'), 'b', {
      stopS: 5e-3,
      start: 'zero',
    });
    expect(
      worst(
        trace,
        (t) => 1 - Math.exp(-decay * t) * (Math.cos(omega * t) + (decay / omega) * Math.sin(omega * t)),
      ),
    ).toBeLessThan(0.01);
  });

  it('lets a tank without losses swing on: a hundred periods change it by less than a tenth', () => {
    const periodS = 2 * Math.PI * Math.sqrt(10e-3 * 1e-6);
    const { timeS, value } = run(circuitOf('V1 1V vcc 0\nR1 1m vcc a\nL1 10m a b\nC1 1u b 0'), 'b', {
      stopS: 100 * periodS,
      start: 'zero',
    });
    const swing = (from: number) =>
      Math.max(
        ...value
          .filter((_, i) => timeS[i]! >= from && timeS[i]! < from + 2 * periodS)
          .map((v) => Math.abs(v - 1)),
      );
    expect(swing(97 * periodS) / swing(periodS)).toBeGreaterThan(0.9);
    expect(swing(97 * periodS) / swing(periodS)).toBeLessThan(1.1);
  });

  it('is of third order at least: halving a fixed step divides the error by eight', () => {
    const circuit = circuitOf('G1 1V 1kHz in 0\nR1 1k in a\nC1 100n a 0');
    const tau = 1e-4;
    const omega = 2 * Math.PI * 1000;
    const gain = 1 / Math.hypot(1, omega * tau);
    const lag = Math.atan(omega * tau);
    const exact = (t: number) => gain * Math.sin(omega * t - lag) + gain * Math.sin(lag) * Math.exp(-t / tau);
    const errorAt = (stepS: number) =>
      worst(run(circuit, 'a', { stopS: 2e-3, stepS, relativeError: 1e9 }), exact);
    const order = Math.log2(errorAt(2e-5) / errorAt(1e-5));
    expect(order).toBeGreaterThan(3);
  });

  it('lands on the times asked for', () => {
    const { timeS } = run(circuitOf('G1 1V 1kHz in 0\nR1 1k in a\nC1 1u a 0'), 'a', {
      stopS: 1e-3,
      stepS: 1e-4,
    });
    expect(timeS).toHaveLength(11);
    timeS.forEach((t, i) => expect(t).toBeCloseTo(i * 1e-4, 12));
  });

  it('follows the edges of a square wave without ringing', () => {
    const trace = run(circuitOf('G1 1V 1kHz square in 0\nR1 1k in a\nR2 1k a 0\nC1 1p a 0'), 'a', {
      stopS: 3e-3,
    });
    expect(Math.max(...trace.value.map(Math.abs))).toBeLessThan(0.501);
  });

  it('starts from the operating point unless told otherwise', () => {
    const circuit = circuitOf('V1 1V vcc 0\nR1 1k vcc a\nC1 1u a 0');
    expect(worst(run(circuit, 'a', { stopS: 1e-3 }), () => 1)).toBeLessThan(1e-9);
  });
});

/** Which the package's own types leave out. */
interface OdeSolver {
  solveODE(
    rates: (t: number, y: [number, number]) => number[],
    span: readonly [number, number],
    start: readonly [number, number],
    options: object,
  ): { readonly y: readonly [number, number][] };
}
const { solveODE }: OdeSolver = Object.assign({} as OdeSolver, mathjs);

describe('transient against an ODE package', () => {
  const [r, l, c, is, n] = [100, 10e-3, 100e-9, 1e-12, 1.5];
  const scale = n * THERMAL_VOLTAGE;
  const circuit = circuitOf(`G1 1V 1kHz in 0\nR1 ${r} in x\nL1 10m x a\nC1 100n a 0\nD1 a 0 IS=${is} N=${n}`);
  /** L di/dt = v(t) - R i - u, C du/dt = i - IS (e^(u/nVt) - 1), by mathjs' Runge-Kutta of order 4(5). */
  const reference = (endS: number): number => {
    const rates = (t: number, [i, u]: [number, number]) => [
      (Math.sin(2 * Math.PI * 1000 * t) - r * i - u) / l,
      (i - is * (Math.exp(u / scale) - 1)) / c,
    ];
    const { y } = solveODE(rates, [0, endS], [0, 0], {
      method: 'RK45',
      tol: 1e-9,
      firstStep: 1e-7,
      maxIter: 1e6,
    });
    return y.at(-1)![1];
  };
  const errorWith = (options: { relativeError: number }, endS: number) =>
    Math.abs(run(circuit, 'a', { stopS: endS, ...options }).value.at(-1)! - reference(endS));

  it('follows a rung and clipped sine to 20 µV', () => {
    for (const endS of [0.3e-3, 0.85e-3, 2.2e-3])
      expect(errorWith({ relativeError: 1e-6 }, endS)).toBeLessThan(2e-5);
  });
});

describe('transient against the other analyses', () => {
  it('rests at the operating point in every unknown, currents of sources that hold a net included', () => {
    const circuits = [
      'V1 9V vp 0\nV2 9V 0 vm\nR1 4k7 m 0\nU1 TL072 plus=in minus=m out=out vplus=vp vminus=vm\nR2 100k m out\nC1 100p m out\nD1 1N4148 m out\nD2 1N4148 out m\nR3 10k in vp\nR4 15k in 0\nR5 2k out 0',
      'V1 9V vcc 0\nR1 470k vcc b\nR2 68k b 0\nQ1 2N3904 vcc b e\nQ2 2N3906 0 e f\nR3 1k vcc f\nR4 10k e 0\nC1 1u b 0',
      'V1 250V ht 0\nR1 100k ht a\nVT1 12AX7 a g k\nR2 1k5 k 0\nR3 1M g 0\nC2 22u k 0\nVP1 EL84 ht a k 0',
      'V1 12V vcc 0\nM1 2N7000 vcc g s\nR1 1M vcc g\nR2 1M g 0\nR3 1k s 0\nJF1 2N5457 vcc 0 t\nR4 1k t 0\nLED1 red s u\nR5 2k u 0',
    ];
    for (const lines of circuits) {
      const model = sessionOf(circuitOf(lines));
      const expected = Float64Array.from(model.operatingPoint());
      const outcome = transient(model, {
        stopS: 1e-3,
        stepS: 1e-4,
        onPoint: (_, x) =>
          expected.forEach((v, k) =>
            expect(Math.abs(x[k]! - v), `${model.system.unknowns[k]!.name} of ${lines}`).toBeLessThanOrEqual(
              1e-5 * Math.abs(v) + 1e-9,
            ),
          ),
      });
      expect(outcome.ok).toBe(true);
    }
  });

  it('equals AC for a small signal', () => {
    for (const seed of [2, 4, 9]) {
      const circuit = randomCircuit(seed, 2);
      const frequency = 2000;
      const parts = circuit.parts.map((p) => (p.kind === 'signal' ? { ...p, marked: 1e-6, frequency } : p));
      const model = sessionOf({ ...circuit, parts });
      const node = model.system.node('out');
      const expected = magnitude(model.smallSignal.at(frequency).drive('G1').voltage(node)) * 1e-6;
      const trace = run({ ...circuit, parts }, 'out', {
        stopS: 40 / frequency,
        stepS: 1 / frequency / 100,
        relativeError: 1e9,
      });
      const last = trace.value.slice(-100);
      const swing = (Math.max(...last) - Math.min(...last)) / 2;
      expect(swing / expected).toBeCloseTo(1, 1);
    }
  });
});

describe('oscillators', () => {
  const rateOf = (lines: string, net: string, stopS: number) =>
    oscillationOf(run(circuitOf(lines), net, { stopS, start: 'zero' }));
  const timer = (rest: string) =>
    `V1 9V vcc 0\nTM1 gnd=0 trig=c out=out reset=vcc ctrl=ct thr=c dis=d vcc=vcc\nC2 10n ct 0\n${rest}`;

  it('runs a 555-type timer at ln 2 (RA + 2 RB) C, high for ln 2 (RA + RB) C (the published equations)', () => {
    const found = rateOf(timer('R1 10k vcc d\nR2 47k d c\nC1 10n c 0'), 'out', 20e-3)!;
    expect(found.periodS / (Math.LN2 * 104e3 * 10e-9)).toBeCloseTo(1, 2);
    expect(found.duty).toBeCloseTo(57 / 104, 2);
  });

  it('lets the control pin move both thresholds of a timer', () => {
    const found = rateOf(timer('R1 10k vcc d\nR2 47k d c\nC1 10n c 0\nV2 4.5V ct 0'), 'out', 20e-3)!;
    // Thresholds at 4.5 and 2.25 V: charging takes ln((9 - 2.25)/(9 - 4.5)) RC, discharging ln 2 RC.
    expect(found.periodS / ((Math.log(6.75 / 4.5) * 57e3 + Math.LN2 * 47e3) * 10e-9)).toBeCloseTo(1, 2);
  });

  it('times a 555-type one-shot at 1.0986 RC', () => {
    const lines =
      'V1 9V vcc 0\nTM1 gnd=0 trig=t out=out reset=vcc ctrl=ct thr=c dis=c vcc=vcc\nC2 10n ct 0\nR1 100k vcc c\nC1 10n c 0\nG1 pulse t 0';
    const circuit = circuitOf(lines);
    const parts = circuit.parts.map((p) =>
      p.ref === 'G1' ? { ...p, marked: -9, offset: 9, delay: 1e-3, width: 5e-5, rise: 1e-6, fall: 1e-6 } : p,
    );
    const { timeS, value } = run({ ...circuit, parts }, 'out', { stopS: 4e-3, start: 'op' });
    const high = timeS.filter((t, i) => t > 0.9e-3 && value[i]! > 4);
    expect((high.at(-1)! - high[0]!) / (Math.log(3) * 1e-3)).toBeCloseTo(1, 1);
  });

  it('swings a multivibrator of two transistors near ln 2 (R1 C1 + R2 C2) (handbook)', () => {
    const found = rateOf(
      'V1 5V vcc 0\nR1 1k vcc c1\nR2 47k vcc b2\nR3 47.5k vcc b1\nR4 1k vcc c2\nC1 10n c1 b2\nC2 10n c2 b1\nQ1 npn c1 b1 0 CJE=10p\nQ2 npn c2 b2 0 CJE=10p',
      'c1',
      30e-3,
    )!;
    expect(found.periodS / (Math.LN2 * 94.5e3 * 10e-9)).toBeGreaterThan(0.85);
    expect(found.periodS / (Math.LN2 * 94.5e3 * 10e-9)).toBeLessThan(1.1);
  });
});
