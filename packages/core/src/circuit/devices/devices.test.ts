import { describe, expect, it } from 'vitest';
import { circuitOf, sessionOf } from '../../testing/circuits.ts';
import type { ControlledLaw } from './controlled.ts';
import {
  bjtLaw,
  bjtParameters,
  squareLaw,
  THERMAL_VOLTAGE,
  triodeLaw,
  waveformOf,
  type BjtCurrents,
} from './index.ts';
import type { LayerPartOf } from '../circuit/index.ts';
import { modelParameters } from '../models/index.ts';

type Signal = LayerPartOf<'signal'>;

const solved = (lines: string) => {
  const model = sessionOf(circuitOf(lines));
  const x = model.operatingPoint();
  return {
    model,
    volt: (net: string) => x[model.system.node(net)]!,
    part: (ref: string) => model.system.device(ref).report(x),
  };
};
const law = (): ControlledLaw => ({ current: 0, gm: 0, gds: 0 });

/** A law's derivatives against central differences of the law itself. */
function expectSlopes(at: (a: number, b: number, out: ControlledLaw) => void, a: number, b: number): void {
  const [here, up, down] = [law(), law(), law()];
  const step = 1e-5;
  at(a, b, here);
  at(a + step, b, up);
  at(a - step, b, down);
  expect(here.gm).toBeCloseTo((up.current - down.current) / (2 * step), 8);
  at(a, b + step, up);
  at(a, b - step, down);
  expect(here.gds).toBeCloseTo((up.current - down.current) / (2 * step), 8);
}

describe('field-effect transistors (Shichman and Hodges 1968)', () => {
  it('has the square law in saturation and below, and both ends alike', () => {
    const out = law();
    squareLaw(1e-3, -2, 0.01, -1, 10, out);
    expect(out.current).toBeCloseTo(1e-3 * 1 * 1.1, 12);
    squareLaw(1e-3, -2, 0.01, -1, 0.4, out);
    expect(out.current).toBeCloseTo(1e-3 * 0.4 * 1.6 * 1.004, 12);
    const mirrored = law();
    squareLaw(1e-3, -2, 0, -1, -0.4, out);
    squareLaw(1e-3, -2, 0, -0.6, 0.4, mirrored);
    expect(out.current).toBeCloseTo(-mirrored.current, 15);
  });

  it.each([
    [-1, 5],
    [-1, 0.5],
    [-0.5, -0.7],
    [-1.5, -3],
    [-3, 2],
  ])('has the derivatives of its law at vgs %d, vds %d', (vgs, vds) => {
    expectSlopes((a, b, out) => squareLaw(1e-3, -2, 0.02, a, b, out), vgs, vds);
  });

  it('biases itself over a source resistor: Id = BETA (Id Rs + VTO)^2 by its closed form', () => {
    const [beta, vto, rs] = [1e-3, -2, 1000];
    const { part } = solved(
      `V1 20V vcc 0\nJF1 jfet d=d g=0 s=s BETA=${beta} VTO=${vto}\nR1 1k vcc d\nR2 ${rs} s 0`,
    );
    const [a, b, c] = [beta * rs * rs, 2 * beta * rs * vto - 1, beta * vto * vto];
    expect(part('JF1').current).toBeCloseTo((-b - Math.sqrt(b * b - 4 * a * c)) / (2 * a), 8);
    expect(part('JF1').region).toBe('active');
  });

  it('has half of KP in a MOSFET, and mirrors a p type', () => {
    const n = solved('V1 9V vcc 0\nV2 3V g 0\nM1 mosfet d=d g=g s=0 KP=2e-3 VTO=1\nR1 1k vcc d');
    expect(n.part('M1').current).toBeCloseTo(1e-3 * 4, 9);
    const p = sessionOf(
      circuitOf('V1 9V 0 vee\nV2 3V 0 g\nM1 mosfet p d=d g=g s=0 KP=2e-3 VTO=1\nR1 1k vee d'),
    );
    const x = p.operatingPoint();
    expect(p.system.device('M1').report(x).current).toBeCloseTo(-4e-3, 9);
  });
});

describe('valves (Koren 1996)', () => {
  const p = modelParameters<'triode'>({ kind: 'triode', model: '12AX7' });

  it('follows the published equation', () => {
    const out = law();
    triodeLaw(p, -2, 250, out);
    const e1 = (250 / 600) * Math.log(1 + Math.exp(600 * (1 / 100 - 2 / Math.sqrt(300 + 250 ** 2))));
    expect(out.current).toBeCloseTo((2 * e1 ** 1.4) / 1060, 9);
    expectSlopes((a, b, o) => triodeLaw(p, a, b, o), -1.5, 180);
  });

  it('comes near the published 12AX7-class sheet: 250 V, -2 V: 1.2 mA, 1.6 mA/V, mu 100 (from memory)', () => {
    const out = law();
    triodeLaw(p, -2, 250, out);
    // With Koren's parameters the equation itself gives 0.95 mA: 21 % low, and known of this fit.
    expect(out.current / 1.2e-3).toBeGreaterThan(0.75);
    expect(out.gm / 1.6e-3).toBeGreaterThan(0.85);
    expect(out.gm / 1.6e-3).toBeLessThan(1.15);
    expect(Math.abs(out.gm / out.gds / 100 - 1)).toBeLessThan(0.15);
  });

  it('gives a pentode a screen current and an anode current that the anode hardly moves', () => {
    const at = (anode: number) =>
      solved(`V1 ${anode}V a 0\nV2 250V s 0\nV3 12V 0 g\nVP1 EL34 a=a g2=s g=g k=0`).part('VP1').current;
    expect(at(300) / at(200)).toBeLessThan(1.06);
    expect(at(250)).toBeGreaterThan(0.03);
    const e1 = (250 / 60) * Math.log(1 + Math.exp(60 * (1 / 11 - 12 / 250)));
    expect(at(250)).toBeCloseTo(((2 * e1 ** 1.35) / 650) * Math.atan(250 / 24), 6);
  });
});

describe('bipolar transistor (Gummel and Poon 1970)', () => {
  it('has the derivatives of its law, Early voltages, knee and leakages included', () => {
    const p = bjtParameters({
      kind: 'bjt',
      params: { VAF: 50, VAR: 12, IKF: 0.01, ISE: 1e-13, NE: 1.5, ISC: 1e-13, NC: 2, BR: 4 },
    });
    const empty = (): BjtCurrents => ({
      ic: 0,
      ib: 0,
      icBe: 0,
      icBc: 0,
      ibBe: 0,
      ibBc: 0,
      forward: 0,
      reverse: 0,
      forwardSlope: 0,
    });
    const work = { current: 0, slope: 0 };
    for (const [vbe, vbc] of [
      [0.65, -5],
      [0.7, 0.55],
      [0.75, -0.2],
      [-1, 0.6],
    ] as const) {
      const [here, up, down] = [empty(), empty(), empty()];
      const step = 1e-6;
      bjtLaw(p, vbe, vbc, here, work);
      for (const [slopeC, slopeB, dBe, dBc] of [
        [here.icBe, here.ibBe, step, 0],
        [here.icBc, here.ibBc, 0, step],
      ] as const) {
        bjtLaw(p, vbe + dBe, vbc + dBc, up, work);
        bjtLaw(p, vbe - dBe, vbc - dBc, down, work);
        const scale = Math.max(1e-9, Math.abs(slopeC), Math.abs(slopeB));
        expect(Math.abs((up.ic - down.ic) / (2 * step) - slopeC) / scale).toBeLessThan(1e-5);
        expect(Math.abs((up.ib - down.ib) / (2 * step) - slopeB) / scale).toBeLessThan(1e-5);
      }
    }
  });

  it('has gm = Ic/Vt when nothing else acts', () => {
    const { model, part } = solved(
      'V1 12V vcc 0\nR1 1M vcc b\nQ1 npn c b 0\nR2 1k vcc c\nG1 1mV in 0\nC1 1F in b',
    );
    const gain = model.smallSignal.at(1000).drive('G1').voltage(model.system.node('c')).re;
    expect(gain).toBeCloseTo((-part('Q1').current / THERMAL_VOLTAGE) * 1000, 2);
  });
});

describe('others', () => {
  it('transforms voltage by 1/n and impedance by n squared', () => {
    const { model } = solved('G1 1V in 0\nT1 10 p1=in p2=0 s1=o s2=0 lp=1000\nR1 8 o 0');
    const solvedAt = model.smallSignal.at(100).drive('G1');
    expect(solvedAt.voltage(model.system.node('o')).re).toBeCloseTo(0.1, 2);
    const row = model.system.device('G1').driveRow!;
    expect(-1 / solvedAt.xRe[row]!).toBeCloseTo(800, -1);
  });

  it('gives an electret its current and its sensitivity into the load it is given for', () => {
    const { model, volt, part } = solved('V1 9V vcc 0\nMK1 electret out=o gnd=0\nR1 2k2 vcc o');
    expect(part('MK1').region).toBe('active');
    expect(volt('o')).toBeGreaterThan(7.5);
    expect(Math.abs(model.smallSignal.at(1000).drive('MK1').voltage(model.system.node('o')).re)).toBeCloseTo(
      0.01,
      6,
    );
  });

  it('gives a loudspeaker its peak re (1 + qms/qes) at fs and its coil above (Thiele 1971, Small 1972)', () => {
    const { model } = solved('G1 1V in 0\nLS1 speaker in 0 re=6 le=0.5m fs=55 qms=4 qes=0.5');
    const at = (f: number) => {
      const s = model.smallSignal.at(f).drive('G1');
      const row = model.system.device('G1').driveRow!;
      return 1 / Math.hypot(s.xRe[row]!, s.xIm[row]!);
    };
    expect(at(55)).toBeCloseTo(6 * (1 + 4 / 0.5), 0);
    expect(at(300)).toBeLessThan(7.5);
    expect(at(20_000)).toBeCloseTo(Math.hypot(6, 2 * Math.PI * 20_000 * 0.5e-3), 0);
  });

  it('draws waveforms as they are defined', () => {
    const of = (waveform: Signal['waveform'], rest: Partial<Signal> = {}) =>
      waveformOf(
        { ref: 'G', kind: 'signal', pins: {}, value: 2, waveform, frequency: 1, offset: 1, ...rest },
        2,
      );
    expect([0, 0.25, 0.5].map(of('sine'))).toEqual([1, 3, expect.closeTo(1, 12)]);
    expect([0, 0.49, 0.51].map(of('square'))).toEqual([3, 3, -1]);
    expect([0, 0.25, 0.5, 0.75].map(of('triangle'))).toEqual([1, 3, 1, -1]);
    const played = of('sampled', { samples: [0, 1, -1], sampleRateHz: 10 });
    expect([0, 0.05, 0.1, 0.2, 5].map(played)).toEqual([1, 2, 3, -1, 1].map((v) => expect.closeTo(v, 12)));
    const pulse = of('pulse', { delay: 1, width: 2, periodS: 10, rise: 1, fall: 1 });
    expect([0.5, 1.5, 3, 4.5, 6, 11.5].map(pulse)).toEqual([1, 2, 3, 2, 1, 2]);
  });
});
