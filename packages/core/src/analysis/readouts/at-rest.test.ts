import { describe, expect, it } from 'vitest';
import { circuitOf, sessionOf, type Unnamed } from '../../testing/circuits.ts';
import { evaluateReadout, type ReadoutsAround } from './index.ts';

const told = (lines: string, readout: Unnamed, around?: ReadoutsAround) => {
  const a = evaluateReadout(sessionOf(circuitOf(lines)), { ...readout, id: 'x', name: 'X' }, around);
  return a.ok ? a.value : a.problem.message;
};

describe('heat', () => {
  it('raises a junction by P theta above its ambient (any data sheet)', () => {
    const lines = 'V1 10V vcc 0\nR1 100 vcc 0';
    const at = (more: object) => told(lines, { kind: 'junctionTemperature', part: 'R1', ...more });
    expect(at({ thetaJA: 60 })).toBeCloseTo(25 + 60, 6);
    expect(at({ thetaJC: 1.5, thetaCS: 0.5, thetaSA: 4, ambientC: 40 })).toBeCloseTo(40 + 6, 6);
    expect(at({ thetaJC: 1.5 })).toMatch(/"thetaSA" is missing/);
    expect(at({ thetaJA: 60, thetaSA: 4 })).toMatch(/alone/);
  });

  it('is fed by all supplies together', () => {
    expect(told('V1 10V a 0\nV2 5V b 0\nR1 1k a 0\nR2 1k b 0', { kind: 'supplyPower' })).toBeCloseTo(
      0.125,
      9,
    );
    expect(told('G1 1V in 0\nR1 1k in 0', { kind: 'supplyPower' })).toMatch(/no supply/);
  });
});

describe('run time', () => {
  const LOAD = 'V1 9V vcc 0\nR1 900 vcc 0';
  it('of a capacitor into a resistor is RC ln(V0/V) (textbook)', () => {
    const seconds = told(LOAD, { kind: 'runTime', part: 'V1', fromV: 9, toV: 6, capacitanceF: 0.1 });
    expect(seconds).toBeCloseTo(900 * 0.1 * Math.log(9 / 6), 4);
  });

  it('of a battery is its charge over the mean current, and of a given load that current', () => {
    const battery = told(LOAD, { kind: 'runTime', part: 'V1', fromV: 9, toV: 6, chargeAh: 0.5 });
    expect(battery).toBeCloseTo((0.5 * 3600) / (7.5 / 900), 3);
    const given = told(LOAD, { kind: 'runTime', part: 'V1', fromV: 9, toV: 6, chargeAh: 0.5, loadA: 0.02 });
    expect(given).toBeCloseTo(25 * 3600, 6);
  });

  it('says what is missing or contradicts', () => {
    const at = (more: object) => told(LOAD, { kind: 'runTime', part: 'V1', fromV: 9, toV: 6, ...more });
    expect(at({})).toMatch(/capacitanceF.*chargeAh/);
    expect(at({ capacitanceF: 1, chargeAh: 1 })).toMatch(/not both/);
    expect(at({ capacitanceF: 1, toV: 10 })).toMatch(/above/);
  });
});

describe('the life of an electrolytic', () => {
  it('doubles for every 10 K below its rating (common practice)', () => {
    const at = (atC: number) =>
      told('C1 100u a 0\nR1 1k a 0', { kind: 'lifetime', part: 'C1', ratedHours: 2000, ratedC: 105, atC });
    expect(at(105)).toBe(2000);
    expect(at(85)).toBeCloseTo(8000, 9);
    expect(at(55)).toBeCloseTo(64_000, 9);
  });
});

describe('a chip whose rate a resistor sets', () => {
  const chip = (ohms: string, more = '') =>
    `V1 5V vcc 0\nR1 1k vcc 0\nR2 ${ohms} s 0\nCLK1 rset=s gnd=0 ratedHz=1M ratedOhm=10k ${more}`;
  const rate = (lines: string) => told(lines, { kind: 'rate', part: 'CLK1' });

  it('goes with one over the resistor unless told otherwise', () => {
    expect(rate(chip('10k'))).toBeCloseTo(1e6, 3);
    expect(rate(chip('20k'))).toBeCloseTo(5e5, 3);
    expect(rate(chip('40k', 'exponent=-0.5'))).toBeCloseTo(5e5, 3);
  });

  it('glitches beyond its ends, and says so', () => {
    expect(rate(chip('1k', 'minOhm=4k7'))).toMatch(/glitch/);
    expect(rate(chip('1M', 'maxOhm=100k'))).toMatch(/glitch/);
  });

  it('overlaps in two settings of a switch by log2 of the common part of both ranges', () => {
    // Over the control 0 to 30k: 10k..40k gives 1 MHz down to 250 kHz; 20k..50k gives 500 down to 200 kHz.
    const lines =
      'V1 5V vcc 0\nR1 1k vcc 0\nCLK1 rset=s gnd=0 ratedHz=1M ratedOhm=10k\nCO1 s x y\nR2 10k x b\nR3 20k y b\nP1 30k b 0 0 50%';
    const around: ReadoutsAround = {
      readouts: [{ id: 'rate', name: 'Rate', kind: 'rate', part: 'CLK1' }],
      settings: [
        { id: 'fast', controls: { CO1: 'a' } },
        { id: 'slow', controls: { CO1: 'b' } },
      ],
    };
    const overlap = told(
      lines,
      { kind: 'overlap', of: 'rate', part: 'P1', settings: ['fast', 'slow'] },
      around,
    );
    expect(overlap).toBeCloseTo(Math.log2(500 / 250), 1);
  });
});

describe('sources count', () => {
  // 100k before 1 uF into 10k.
  const LINES = 'G1 1V in 0 resistance=100k\nC1 1u in out\nR1 10k out 0';
  it('takes a gain and a corner from a net, or from a source’s electromotive force', () => {
    const corner = (from: string) => told(LINES, { kind: 'corner', from, to: 'out', side: 'low' });
    const gain = (from: string) => told(LINES, { kind: 'gain', from, to: 'out', frequencyHz: 1000 });
    expect(corner('in')).toBeCloseTo(15.9, 1);
    expect(gain('in')).toBeCloseTo(0, 2);
    expect(corner('G1')).toBeCloseTo(1.45, 2);
    expect(gain('G1')).toBeCloseTo(20 * Math.log10(10 / 110), 2);
  });
});

describe('beside an oscillator', () => {
  const LINES = `V1 9V vcc 0
    TM1 kind=timer555 gnd=0 trig=c out=o reset=vcc ctrl=v thr=c dis=d vcc=vcc
    R1 10k vcc d
    R2 47k d c
    C1 10n c 0
    C2 10n v 0
    R3 1k o 0
    G1 1V in 0
    C3 1u in out
    R4 10k out 0`;
  it('gains, corners and impedances are given, and resting voltages of what swings are not', () => {
    expect(told(LINES, { kind: 'gain', from: 'in', to: 'out', frequencyHz: 1000 })).toBeCloseTo(0, 2);
    expect(told(LINES, { kind: 'corner', from: 'in', to: 'out', side: 'low' })).toBeCloseTo(15.9, 1);
    expect(told(LINES, { kind: 'inputImpedance', source: 'G1', frequencyHz: 1000 })).toBeCloseTo(
      Math.hypot(1e4, 159.15),
      0,
    );
    expect(told(LINES, { kind: 'voltage', net: 'c' })).toMatch(/oscillat|swing|operating point/i);
  });
});
